import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useDeferredValue } from 'react';
import { useAccount } from '../../api/account';
import { answer, api, type Schemas, type SheetRow } from '../../api/client';
import { asQuery, type Scope } from '../../app/scope';

/** Ads that are listed at once. */
export const mostAds = 200;
const figureDays = 28;

/** The ads of what one is looking at, with what they brought. */
export function useAds({ campaignId, adGroupId }: Scope) {
  const account = useAccount();
  return useQuery({
    queryKey: [account.id, 'sheet', 'ads', campaignId, adGroupId],
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      answer(
        api.POST('/api/accounts/{accountId}/sheet', {
          params: { path: { accountId: account.id } },
          body: {
            kind: 'textAd',
            campaignId,
            adGroupId,
            figureDays,
            sort: 'campaign',
            limit: mostAds,
          },
          signal,
        }),
      ),
  });
}

/** The row of an ad as it was read last: an edit is of that one, not of the one that was there when the page was drawn. */
export function useFreshAd() {
  const account = useAccount();
  const queries = useQueryClient();
  return useCallback(
    (ad: SheetRow): SheetRow =>
      queries
        .getQueriesData<Schemas['SheetPage']>({ queryKey: [account.id, 'sheet', 'ads'] })
        .flatMap(([, page]) => page?.rows ?? [])
        .filter((row) => row.kind === ad.kind && row.id === ad.id)
        .reduce((newest, row) => (row.version > newest.version ? row : newest), ad),
    [account.id, queries],
  );
}

/** What reviewers would refuse of texts, kept or not. The answer follows what is typed; nothing waits for it. */
export function useRefusals(row: SheetRow, texts: Record<string, readonly string[]>) {
  const account = useAccount();
  const asked = useDeferredValue(JSON.stringify(texts));
  return useQuery({
    queryKey: [account.id, 'texts', row.kind, asked],
    staleTime: Infinity,
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      answer(
        api.POST('/api/accounts/{accountId}/texts/read', {
          params: { path: { accountId: account.id } },
          body: { kind: row.kind, texts: JSON.parse(asked) as Record<string, string[]> },
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
