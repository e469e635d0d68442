import { useEffect, useRef } from 'react';
import { answer, api, type ItemKind, type SheetRow } from '../api/client';
import { useAccount } from '../api/account';
import { textsIn } from '../api/kinds';
import type { Column } from './views/columns';
import { requestOf } from './selection';
import { keyOf, type SheetQuery } from './sheetQuery';

interface Focus {
  query: SheetQuery;
  columns: readonly Column[];
  focus: string | null;
  focusField: string | null;
  total: number;
  rowAt: (place: number) => SheetRow | undefined;
  moveTo: (place: number, column: number) => void;
  /** The row is there, with the column of the field that is to be mended, if one is and has a column. */
  onArrive: (place: number, row: SheetRow, column: Column | null) => void;
}

/** A link from elsewhere points at one item: go there, wherever it stands, and open the field that is to be mended. */
export function useSheetFocus({ query, columns, focus, focusField, total, rowAt, moveTo, onArrive }: Focus) {
  const account = useAccount();
  const asked = useRef<string | null>(null);
  const going = useRef<{ place: number; key: string } | null>(null);
  const wish = focus && `${focus} ${focusField ?? ''}`;

  useEffect(() => {
    if (!focus || !wish || total === 0 || asked.current === wish) return;
    asked.current = wish;
    const [kind, id] = focus.split(':');
    void answer(
      api.POST('/api/accounts/{accountId}/sheet/place', {
        params: { path: { accountId: account.id } },
        body: { where: requestOf(query), item: { kind: kind as ItemKind, id: Number(id) } },
      }),
    ).then(({ place }) => {
      if (place == null) return;
      going.current = { place, key: focus };
      moveTo(place, 0);
    });
  }, [account.id, focus, wish, query, total, moveTo]);

  // The row may have to be fetched first.
  useEffect(() => {
    const target = going.current;
    const row = target && rowAt(target.place);
    if (!target || !row || keyOf(row) !== target.key) return;
    going.current = null;
    const column = focusField ? placeOfField(columns, row, focusField) : -1;
    moveTo(target.place, Math.max(0, column));
    onArrive(target.place, row, focusField ? (columns[column] ?? null) : null);
  });
}

const segmenter = new Intl.Segmenter('en', { granularity: 'grapheme' });

/** The column of a field; of several parts, the one that is too long, else the first. */
function placeOfField(columns: readonly Column[], row: SheetRow, name: string): number {
  const places = columns.flatMap((each, place) => (each.edits?.(row)?.name === name ? [place] : []));
  const tooLong = places.find((place) => {
    const part = columns[place]?.part;
    const longest = columns[place]?.edits?.(row)?.limits.length;
    const text = part === undefined ? '' : (textsIn(row, name)[part - 1] ?? '');
    return longest != null && [...segmenter.segment(text)].length > longest;
  });
  return tooLong ?? places[0] ?? -1;
}
