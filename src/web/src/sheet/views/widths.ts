import { useCallback, useState } from 'react';

const key = 'fendrik.widths';
const narrowest = 44;
const widest = 900;

type Widths = Readonly<Record<string, number>>;

/** How wide a person has made columns, by their keys; remembered in this browser. */
export function useWidths() {
  const [widths, setWidths] = useState<Widths>(read);
  const setWidth = useCallback((column: string, width: number | null) => {
    setWidths((before) => {
      const others = Object.entries(before).filter(([name]) => name !== column);
      const held = width === null ? [] : [[column, Math.round(Math.min(widest, Math.max(narrowest, width)))]];
      const next = Object.fromEntries([...others, ...held]) as Widths;
      window.localStorage.setItem(key, JSON.stringify(next));
      return next;
    });
  }, []);
  return [widths, setWidth] as const;
}

function read(): Widths {
  try {
    const widths: unknown = JSON.parse(window.localStorage.getItem(key) ?? '{}');
    return typeof widths === 'object' && widths !== null ? (widths as Widths) : {};
  } catch {
    return {};
  }
}
