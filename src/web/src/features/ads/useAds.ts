import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useDeferredValue } from 'react';
import { useAccount } from '../../api/account';
import { answer, api, type Schemas, type SheetRow } from '../../api/client';
import { useKinds } from '../../api/kinds';
import { asQuery, type Scope } from '../../app/scope';

/** Ads that are listed at once. */
export const mostAds = 200;
const figureDays = 28;

/** The ads of what one is looking at, of all kinds, with what they brought. */
export function useAds({ campaignId, adGroupId }: Scope) {
  const account = useAccount();
  const kinds = useKinds().all.filter((kind) => kind.adForm);
  return useQuery({
    queryKey: [account.id, 'sheet', 'ads', campaignId, adGroupId],
    placeholderData: keepPreviousData,
    queryFn: async ({ signal }) => {
      const pages = await Promise.all(
        kinds.map(({ kind }) =>
          answer(
            api.POST('/api/accounts/{accountId}/sheet', {
              params: { path: { accountId: account.id } },
              body: { kind, campaignId, adGroupId, figureDays, sort: 'campaign', limit: mostAds },
              signal,
            }),
          ),
        ),
      );
      const rows = pages.flatMap((page) => page.rows);
      const place = (row: SheetRow) => `${row.campaign ?? ''}\n${row.adGroup ?? ''}`;
      return {
        // Those of an ad group stand together, whatever their kinds.
        rows: rows.sort((one, other) => place(one).localeCompare(place(other), 'en')),
        more: pages.some((page) => page.rows.length >= mostAds),
      };
    },
  });
}

/** The row of an ad as it was read last: an edit is of that one, not of the one that was there when the page was drawn. */
export function useFreshAd() {
  const account = useAccount();
  const queries = useQueryClient();
  return useCallback(
    (ad: SheetRow): SheetRow =>
      queries
        .getQueriesData<{ rows: SheetRow[] }>({ queryKey: [account.id, 'sheet', 'ads'] })
        .flatMap(([, page]) => page?.rows ?? [])
        .filter((row) => row.kind === ad.kind && row.id === ad.id)
        .reduce((newest, row) => (row.version > newest.version ? row : newest), ad),
    [account.id, queries],
  );
}

/** What texts that insert words make of real searches. */
export function useSearched(row: SheetRow, texts: Record<string, readonly string[]>) {
  const account = useAccount();
  const asked = useDeferredValue(JSON.stringify(texts));
  return useQuery({
    queryKey: [account.id, 'texts', 'searched', row.adGroupId, row.kind, asked],
    enabled: row.adGroupId !== null && asked.includes('{{'),
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      answer(
        api.POST('/api/accounts/{accountId}/texts/with-searches', {
          params: { path: { accountId: account.id } },
          body: {
            kind: row.kind,
            adGroupId: row.adGroupId ?? 0,
            texts: JSON.parse(asked) as Record<string, string[]>,
          },
          signal,
        }),
      ),
  });
}

/** The ways in which a responsive ad can appear. */
export function useArranged(wish: Schemas['ArrangedWish'] | null) {
  const account = useAccount();
  const asked = useDeferredValue(JSON.stringify(wish));
  return useQuery({
    queryKey: [account.id, 'sheet', 'arranged', asked],
    enabled: wish !== null,
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      answer(
        api.POST('/api/accounts/{accountId}/ads/arranged', {
          params: { path: { accountId: account.id } },
          body: JSON.parse(asked) as Schemas['ArrangedWish'],
          signal,
        }),
      ),
  });
}

/** The words that the keywords of an ad group ask for. */
export function useWords(adGroupId: number | null) {
  const account = useAccount();
  return useQuery({
    queryKey: [account.id, 'sheet', 'words', adGroupId],
    enabled: adGroupId !== null,
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/accounts/{accountId}/ad-groups/{adGroupId}/words', {
          params: { path: { accountId: account.id, adGroupId: adGroupId ?? 0 } },
          signal,
        }),
      ),
  });
}

export type Measure = 'clicks' | 'conversions';

/** The ads of each ad group against one another, and how sure the differences are. */
export function useCompared(scope: Scope, by: Measure) {
  const account = useAccount();
  return useQuery({
    queryKey: [account.id, 'sheet', 'compared', asQuery(scope), by],
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/accounts/{accountId}/ads/compared', {
          params: {
            path: { accountId: account.id },
            query: { ...asQuery(scope), by },
          },
          signal,
        }),
      ),
  });
}
