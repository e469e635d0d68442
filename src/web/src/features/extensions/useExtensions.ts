import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useAccount } from '../../api/account';
import { answer, api, type Schemas } from '../../api/client';
import { asQuery, type Scope } from '../../app/scope';

export type Row = Schemas['CoverageRow'];
export type Cell = Schemas['CoverageCell'];

/** Where extensions stand in what one is looking at, and what that means for the ads below. */
export function useCoverage(scope: Scope) {
  const account = useAccount();
  return useQuery({
    queryKey: [account.id, 'extensions', 'coverage', asQuery(scope)],
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/accounts/{accountId}/extensions/coverage', {
          params: {
            path: { accountId: account.id },
            query: asQuery(scope),
          },
          signal,
        }),
      ),
  });
}

/** What extensions brought beside the ads of what one is looking at. */
export function useFigures(scope: Scope) {
  const account = useAccount();
  return useQuery({
    queryKey: [account.id, 'extensions', 'figures', asQuery(scope)],
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/accounts/{accountId}/extensions/figures', {
          params: {
            path: { accountId: account.id },
            query: asQuery(scope),
          },
          signal,
        }),
      ),
  });
}

export interface When {
  device: Schemas['Device'];
  weekday: string;
  hour: number;
}

/** What would show beside an ad in a place, and what keeps the rest away. */
export function useShown(place: Scope, when: When) {
  const account = useAccount();
  return useQuery({
    queryKey: [account.id, 'extensions', 'shown', place.campaignId, place.adGroupId, when],
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/accounts/{accountId}/extensions/shown', {
          params: {
            path: { accountId: account.id },
            query: { ...asQuery(place), ...when },
          },
          signal,
        }),
      ),
  });
}

/** An ad of a place, to show what stands beside it. */
export function useSomeAd(place: Scope) {
  const account = useAccount();
  return useQuery({
    queryKey: [account.id, 'sheet', 'someAd', place.campaignId, place.adGroupId],
    queryFn: ({ signal }) =>
      answer(
        api.POST('/api/accounts/{accountId}/sheet', {
          params: { path: { accountId: account.id } },
          body: {
            kind: 'textAd',
            campaignId: place.campaignId,
            adGroupId: place.adGroupId,
            sort: 'campaign',
            limit: 1,
          },
          signal,
        }),
      ),
    select: (page) => page.rows[0] ?? null,
  });
}

/** A cell of the coverage: a place and a kind. */
export const cellKey = (row: Row, kind: Schemas['ItemKind']) =>
  `${kind} ${row.campaignId ?? '-'} ${row.adGroupId ?? '-'}`;

/** The places of rows, as commands name them. */
export const placesOf = (rows: readonly Row[]) => ({
  campaignIds: rows.flatMap((row) => (row.level === 'campaign' && row.campaignId ? [row.campaignId] : [])),
  adGroupIds: rows.flatMap((row) => (row.adGroupId ? [row.adGroupId] : [])),
  onAccount: rows.some((row) => row.level === 'account'),
});
