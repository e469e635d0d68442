import type { KeyboardEvent } from 'react';
import { hasLayer } from '../ui/home';
import type { BulkEdit } from './editing/bulk';
import { sizeOf, type Selection } from './selection';

interface PageKeys {
  selection: Selection;
  onBulk: (edit: BulkEdit) => void;
  /** What else Alt and a letter do, by the code of the key. */
  others?: Readonly<Record<string, () => void>>;
}

const edits: Readonly<Record<string, BulkEdit>> = {
  KeyT: 'texts',
  KeyC: 'copy',
  KeyL: 'labels',
  KeyM: 'negatives',
};

/** The amount of what is selected, in the side panel. */
function toAmount() {
  document.querySelector<HTMLElement>('[data-side] [data-amount] input')?.focus();
}

/** To the filter above the sheet. */
function toFilter() {
  document.querySelector<HTMLInputElement>('[data-filter]')?.select();
  document.querySelector<HTMLElement>('[data-filter]')?.focus();
}

/** The keys of a page with a sheet, wherever on the page the focus is; behind an open dialog they do nothing. */
export function usePageKeys({ selection, onBulk, others = {} }: PageKeys) {
  return (event: KeyboardEvent) => {
    if (hasLayer() || event.ctrlKey || event.metaKey) return;
    if (event.key === '/' && !/^(INPUT|TEXTAREA)$/.test((event.target as HTMLElement).tagName)) {
      event.preventDefault();
      toFilter();
    }
    if (!event.altKey || event.shiftKey) return;
    const edit = edits[event.code];
    const action =
      others[event.code] ??
      (sizeOf(selection) === 0 ? undefined : event.code === 'KeyB' ? toAmount : edit && (() => onBulk(edit)));
    if (!action) return;
    event.preventDefault();
    action();
  };
}
