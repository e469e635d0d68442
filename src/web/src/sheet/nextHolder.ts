import type { SheetRow } from '../api/client';

/** Rows that are read at once on the way to the next campaign or ad group. */
const leapPage = 500;

interface Way {
  from: number;
  down: boolean;
  total: number;
  rowAt: (place: number) => SheetRow | undefined;
  loadRange: (from: number, to: number) => Promise<readonly SheetRow[]>;
}

/** Place of the next row, up or down, that holds others; none when there is no such row. Rows that nobody has read yet are read. */
export async function nextHolder({ from, down, total, rowAt, loadRange }: Way): Promise<number | null> {
  const step = down ? 1 : -1;
  for (let place = from + step; place >= 0 && place < total;) {
    const row = rowAt(place);
    if (row) {
      if (row.inside != null) return place;
      place += step;
      continue;
    }
    const first = Math.max(0, down ? place : place - leapPage + 1);
    const rows = await loadRange(first, Math.min(total - 1, first + leapPage - 1));
    const holds = (each: SheetRow) => each.inside != null;
    const found = down ? rows.findIndex(holds) : rows.findLastIndex(holds);
    if (found >= 0) return first + found;
    place = down ? first + rows.length : first - 1;
  }
  return null;
}
