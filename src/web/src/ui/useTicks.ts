import { useCallback, useMemo, useState, type KeyboardEvent } from 'react';

interface Ticks<T> {
  /** What is ticked of what is there now, in its order. */
  ticked: readonly T[];
  has: (item: T) => boolean;
  toggle: (item: T) => void;
  /** Ticks all, or none when all are. */
  all: () => void;
  none: () => void;
  /** Row under the keyboard. */
  active: number;
  setActive: (place: number) => void;
  /** The keys of a list with ticks: arrows, Home and End move, Space ticks, Ctrl A ticks all. */
  onKeyDown: (event: KeyboardEvent) => void;
}

interface Options<T> {
  items: readonly T[];
  keyOf: (item: T) => string;
  /** All are ticked from the start; what is kept is what changes. */
  all?: boolean;
  /** What Enter and Delete do. */
  onEnter?: (item: T) => void;
  onDelete?: (ticked: readonly T[]) => void;
}

/** Rows of a list that are ticked to be mended together, by mouse and by keyboard. */
export function useTicks<T>({
  items,
  keyOf,
  all: allFirst = false,
  onEnter,
  onDelete,
}: Options<T>): Ticks<T> {
  // The rows that are not as all were at first.
  const [turned, setTurned] = useState<ReadonlySet<string>>(new Set());
  // The row under the keyboard is an item: rows that come or go above it, by a colleague too, do not put another in its place.
  const [at, setAt] = useState<{ place: number; key: string | null }>({ place: 0, key: null });
  const followed = at.key === null ? -1 : items.findIndex((item) => keyOf(item) === at.key);
  const active = followed >= 0 ? followed : Math.max(0, Math.min(at.place, items.length - 1));
  const setActive = (place: number) => {
    const item = items[place];
    setAt({ place, key: item === undefined ? null : keyOf(item) });
  };
  const has = useCallback((item: T) => turned.has(keyOf(item)) !== allFirst, [turned, keyOf, allFirst]);
  const ticked = useMemo(() => items.filter(has), [items, has]);
  const toggle = useCallback(
    (item: T) =>
      setTurned((before) => {
        const next = new Set(before);
        if (!next.delete(keyOf(item))) next.add(keyOf(item));
        return next;
      }),
    [keyOf],
  );
  const set = (ticks: boolean) => setTurned(ticks === allFirst ? new Set() : new Set(items.map(keyOf)));
  const all = () => set(ticked.length < items.length);
  const onKeyDown = (event: KeyboardEvent) => {
    // A button or a box in a row has keys of its own.
    if (event.target !== event.currentTarget) return;
    const moves: Partial<Record<string, number>> = {
      ArrowDown: active + 1,
      ArrowUp: active - 1,
      Home: 0,
      End: items.length - 1,
    };
    const next = moves[event.key];
    const item = items[active];
    if (next !== undefined) setActive(Math.max(0, Math.min(items.length - 1, next)));
    else if (event.key === ' ' && item) toggle(item);
    else if (event.key.toLowerCase() === 'a' && (event.ctrlKey || event.metaKey)) all();
    else if (event.key === 'Enter' && item && onEnter && !event.ctrlKey) onEnter(item);
    else if (event.key === 'Delete' && onDelete && ticked.length > 0) onDelete(ticked);
    else return;
    event.preventDefault();
  };
  return {
    ticked,
    has,
    toggle,
    all,
    none: () => set(false),
    active,
    setActive,
    onKeyDown,
  };
}
