import { keepPreviousData, useQueries, useQuery } from '@tanstack/react-query';
import { useAccount } from '../../api/account';
import { answer, api, type ItemKind, type Schemas, type SheetRow } from '../../api/client';

export type KnownPlace = Schemas['GazetteerPlace'];

const mostRows = 500;

/** Rows of a kind: all, or those in one campaign. What changes the sheet changes these rows. */
function rowsOf(accountId: number, kind: ItemKind, campaignId: number | null) {
  return {
    queryKey: [accountId, 'sheet', 'settings', kind, campaignId],
    queryFn: ({ signal }: { signal: AbortSignal }) =>
      answer(
        api.POST('/api/accounts/{accountId}/sheet', {
          params: { path: { accountId } },
          body: { kind, campaignId, offset: 0, limit: mostRows },
          signal,
        }),
      ),
  };
}

/** The campaigns with all that is set on them. */
export function useCampaignSettings() {
  const account = useAccount();
  return useQuery({ ...rowsOf(account.id, 'campaign', null), placeholderData: keepPreviousData });
}

/** The places of campaigns, each asked for by itself: all places of a large account are more than anybody looks at. */
export function usePlacesOf(campaigns: readonly number[]) {
  const account = useAccount();
  return useQueries({
    queries: campaigns.map((id) => rowsOf(account.id, 'place', id)),
    combine: (results) => ({
      error: results.find((result) => result.error)?.error ?? null,
      isReady: results.every((result) => result.data),
      rows: results.flatMap((result) => result.data?.rows ?? []),
    }),
  });
}

/** The places that the networks know; they stay what they are. */
export function useKnownPlaces() {
  const account = useAccount();
  return useQuery({
    queryKey: [account.id, 'knownPlaces'],
    staleTime: Infinity,
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/accounts/{accountId}/places', {
          params: { path: { accountId: account.id } },
          signal,
        }),
      ),
  });
}

/** What names of places may mean. */
export function useReadPlaces() {
  const account = useAccount();
  return (lines: string[]) =>
    answer(
      api.POST('/api/accounts/{accountId}/places/read', {
        params: { path: { accountId: account.id } },
        body: { lines },
      }),
    );
}

export function campaignsOf(rows: readonly SheetRow[], shown: readonly number[] | null): SheetRow[] {
  return shown === null ? rows.slice(0, fewCampaigns) : rows.filter((row) => shown.includes(row.id));
}

/** So many campaigns stand side by side at first. */
export const fewCampaigns = 5;
