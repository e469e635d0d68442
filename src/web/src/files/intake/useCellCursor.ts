import { useState, type KeyboardEvent, type RefObject } from 'react';

/** Where the cursor goes once a cell is mended. */
export type Then = 'down' | 'left' | 'right' | 'stay';

interface Cursor {
  grid: RefObject<HTMLDivElement | null>;
  total: number;
  columns: number;
  page: () => number;
  scrollTo: (place: number) => void;
}

/** A cell cursor over the rows of a list, by the keys of a spreadsheet. */
export function useCellCursor({ grid, total, columns, page, scrollTo }: Cursor) {
  const [cursor, setActive] = useState({ place: 0, column: 0 });
  const [editing, setEditing] = useState(false);
  const held = (place: number, column: number) => ({
    place: Math.max(0, Math.min(total - 1, place)),
    column: Math.max(0, Math.min(columns - 1, column)),
  });
  // Where rows went away, the last one is under the cursor.
  const active = held(cursor.place, cursor.column);
  const moveTo = (place: number, column: number) => {
    const next = held(place, column);
    setActive(next);
    scrollTo(next.place);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (editing || event.target !== grid.current || event.altKey) return;
    const { place, column } = active;
    const control = event.ctrlKey || event.metaKey;
    const moves: Partial<Record<string, readonly [number, number]>> = control
      ? {
          Home: [0, column],
          End: [total - 1, column],
          ArrowUp: [0, column],
          ArrowDown: [total - 1, column],
          ArrowLeft: [place, 0],
          ArrowRight: [place, columns - 1],
        }
      : {
          ArrowUp: [place - 1, column],
          ArrowDown: [place + 1, column],
          ArrowLeft: [place, column - 1],
          ArrowRight: [place, column + 1],
          PageUp: [place - page(), column],
          PageDown: [place + page(), column],
          Home: [place, 0],
          End: [place, columns - 1],
        };
    const move = moves[event.key];
    if (move) moveTo(...move);
    else if (!control && (event.key === 'Enter' || event.key === 'F2') && total > 0) setEditing(true);
    else return;
    event.preventDefault();
  };
  return {
    active,
    setActive,
    editing,
    setEditing,
    onKeyDown,
    goOn: (then: Then) => {
      const by = { down: [1, 0], left: [0, -1], right: [0, 1], stay: [0, 0] }[then] as [number, number];
      moveTo(active.place + by[0], active.column + by[1]);
    },
  };
}
