import { useQueries, useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useMemo } from 'react';
import { answer, api, type ItemKind, type Schemas, type SheetRow } from '../api/client';
import { useAccount } from '../api/account';

export const pageSize = 100;

/** Most rows that are fetched one after the other, to be copied or selected. */
export const mostLoaded = 20_000;
const largestWindow = 500;

/** One kind in a flat list, or campaigns with all that is in them. */
export type SheetView = ItemKind | 'outline';

export function viewOf(query: { kind?: ItemKind | null }): SheetView {
  return query.kind ?? 'outline';
}

export interface SheetQuery {
  /** The kind that is listed; none for an outline. */
  kind: ItemKind | null;
  campaignId: number | null;
  adGroupId: number | null;
  text: string;
  state: Schemas['ItemState'] | null;
  match: Schemas['MatchType'] | null;
  changed: boolean;
  removed: boolean;
  needs: boolean;
  stepId: number | null;
  listId?: number | null;
  conditions: Schemas['SheetCondition'][];
  figureDays: number;
  sort: string | null;
  descending: boolean;
  foldedCampaigns: number[];
  foldedAdGroups: number[];
  /** Campaigns of which what they hold besides ad groups is folded. */
  foldedBesides: number[];
  kinds: ItemKind[];
  /** The look as whose variant the sheet is read. */
  variant?: number | null;
}

export function keyOf(row: { kind: ItemKind; id: number }) {
  return `${row.kind}:${row.id}`;
}

export function referencesOf(rows: Iterable<SheetRow>): Schemas['ItemReference'][] {
  return [...rows].map(({ kind, id }) => ({ kind, id }));
}

/** A sheet as far as its number of rows goes. */
function unordered(query: SheetQuery): SheetQuery {
  return { ...query, sort: null, descending: false };
}

/** The rows of a sheet, fetched a page at a time as they come into view. */
export function useSheetRows(query: SheetQuery, firstRow: number, lastRow: number) {
  const account = useAccount();
  const queries = useQueryClient();
  const fetchWindow = useCallback(
    (offset: number, limit: number) =>
      answer(
        api.POST('/api/accounts/{accountId}/sheet', {
          params: { path: { accountId: account.id } },
          body: { ...query, offset, limit },
        }),
      ),
    [account.id, query],
  );
  const pages = useMemo(() => {
    // Half a page ahead both ways, so that the wheel finds rows there.
    const first = Math.max(0, Math.floor((firstRow - pageSize / 2) / pageSize));
    const last = Math.max(first, Math.floor((lastRow + pageSize / 2) / pageSize));
    return Array.from({ length: last - first + 1 }, (_, place) => first + place);
  }, [firstRow, lastRow]);
  const results = useQueries({
    queries: pages.map((page) => ({
      queryKey: [account.id, 'sheet', query, page] as const,
      queryFn: () => fetchWindow(page * pageSize, pageSize),
      // The same part of the sheet as it was before a change stands until the new one is here; another part does not.
      placeholderData: (
        before: Schemas['SheetPage'] | undefined,
        query?: { queryKey: readonly unknown[] },
      ) => (query?.queryKey[3] === page ? before : undefined),
    })),
  });
  const place = results.findIndex((result) => result.data);
  const newest = results[place]?.data;
  // The first rows come without being counted; how many there are in all follows.
  const counted = useQuery({
    queryKey: [account.id, 'sheet', 'count', unordered(query)],
    enabled: newest !== undefined && newest.total === null,
    queryFn: () =>
      answer(
        api.POST('/api/accounts/{accountId}/sheet/count', {
          params: { path: { accountId: account.id } },
          body: unordered(query),
        }),
      ),
  });
  const soFar = newest && (pages[place] ?? 0) * pageSize + newest.rows.length;
  const rowAt = useCallback(
    (place: number): SheetRow | undefined => {
      const page = Math.floor(place / pageSize);
      const data = queries.getQueryData<Schemas['SheetPage']>([account.id, 'sheet', query, page]);
      return (
        data?.rows[place - page * pageSize] ??
        results[page - (pages[0] ?? 0)]?.data?.rows[place - page * pageSize]
      );
    },
    [queries, account.id, query, results, pages],
  );
  const loadRange = useCallback(
    async (from: number, to: number): Promise<SheetRow[]> => {
      const rows: SheetRow[] = [];
      const end = Math.min(to + 1, from + mostLoaded);
      for (let offset = from; offset < end; offset += largestWindow) {
        rows.push(...(await fetchWindow(offset, Math.min(largestWindow, end - offset))).rows);
      }
      return rows;
    },
    [fetchWindow],
  );
  return {
    /** None while nothing of what is asked for is here: that says nothing of how many there are. */
    total: newest?.total ?? counted.data?.total ?? soFar,
    counts: newest?.total === null ? counted.data?.counts : newest?.counts,
    rowAt,
    loadRange,
    isLoading: results.some((result) => result.isLoading),
    error: results.find((result) => result.error)?.error,
  };
}
