import { useRef, type KeyboardEvent } from 'react';
import type { SheetRow } from '../api/client';
import type { Column } from './views/columns';

interface Keys {
  isOwn: (target: EventTarget) => boolean;
  page: () => number;
  total: number;
  columns: readonly Column[];
  active: { place: number; column: number };
  outline: boolean;
  rowAt: (place: number) => SheetRow | undefined;
  moveTo: (place: number, column: number, extend: boolean) => void;
  onFold: (row: SheetRow) => void;
  onEdit: (startWith?: string) => void;
  onToggle: () => void;
  onSelectAll: () => void;
  onClear: () => void;
  onRemove: () => void;
  onCopy: (wholeRows: boolean) => void;
  onFillDown: () => void;
  onType: (place: number) => void;
  /** The column under the cursor becomes wider by so many pixels. */
  onWider: (by: number) => void;
  /** Up or down to what the sheet is divided by. */
  onLeap: (down: boolean) => void;
}

const typeAheadPause = 700;

/** The keys of the sheet; `?` lists them. */
export function useSheetKeys(keys: Keys) {
  const typed = useRef({ text: '', at: 0 });

  const typeAhead = (letter: string) => {
    const now = Date.now();
    const text = now - typed.current.at > typeAheadPause ? letter : typed.current.text + letter;
    typed.current = { text, at: now };
    const start = keys.active.place + (text.length > 1 ? 0 : 1);
    for (let step = 0; step < Math.min(keys.total, 1000); step++) {
      const place = (start + step) % keys.total;
      if (keys.rowAt(place)?.name.toLowerCase().startsWith(text.toLowerCase())) {
        keys.onType(place);
        return;
      }
    }
  };

  const withControl = (event: KeyboardEvent): boolean => {
    switch (event.key.toLowerCase()) {
      case 'a':
        keys.onSelectAll();
        return true;
      case 'c':
        // What is marked as text on the page is copied as text.
        if (window.getSelection()?.isCollapsed === false) return false;
        keys.onCopy(event.shiftKey);
        return true;
      case 'd':
        keys.onFillDown();
        return true;
      case 'home':
      case 'end':
        keys.moveTo(event.key === 'Home' ? 0 : keys.total - 1, keys.active.column, event.shiftKey);
        return true;
      case 'arrowleft':
      case 'arrowright':
        keys.moveTo(keys.active.place, event.key === 'ArrowLeft' ? 0 : keys.columns.length, event.shiftKey);
        return true;
      case 'arrowup':
      case 'arrowdown':
        keys.onLeap(event.key === 'ArrowDown');
        return true;
      default:
        return false;
    }
  };

  const plain = (event: KeyboardEvent): boolean => {
    const { active } = keys;
    const moves: Record<string, [number, number]> = {
      ArrowDown: [1, 0],
      ArrowUp: [-1, 0],
      ArrowRight: [0, 1],
      ArrowLeft: [0, -1],
      PageDown: [keys.page(), 0],
      PageUp: [-keys.page(), 0],
      Home: [0, -keys.columns.length],
      End: [0, keys.columns.length],
    };
    const move = moves[event.key];
    if (event.altKey) {
      const by = { ArrowLeft: -16, ArrowRight: 16 }[event.key];
      if (!event.shiftKey || by === undefined) return false;
      keys.onWider(by);
      return true;
    }
    if (move) {
      keys.moveTo(active.place + move[0], active.column + move[1], event.shiftKey);
      return true;
    }
    switch (event.key) {
      case 'Enter': {
        const row = keys.rowAt(active.place);
        if (keys.outline && active.column === 0 && row?.inside != null) keys.onFold(row);
        else keys.onEdit();
        return true;
      }
      case 'F2':
        keys.onEdit();
        return true;
      case ' ':
        keys.onToggle();
        return true;
      case 'Delete':
        keys.onRemove();
        return true;
      case 'Escape':
        keys.onClear();
        return true;
      default:
        return letter(event);
    }
  };

  const letter = (event: KeyboardEvent): boolean => {
    if (event.key.length !== 1 || event.altKey || event.key === '?' || event.key === '/') return false;
    const numeric = keys.columns[keys.active.column]?.numeric;
    if (!numeric) {
      typeAhead(event.key);
      return false;
    }
    if (!/[0-9+−-]/.test(event.key)) return false;
    // The editor begins with this key; the browser must not type it a second time.
    keys.onEdit(event.key);
    return true;
  };

  return (event: KeyboardEvent) => {
    if (!keys.isOwn(event.target)) return;
    if (event.ctrlKey || event.metaKey ? withControl(event) : plain(event)) event.preventDefault();
  };
}
