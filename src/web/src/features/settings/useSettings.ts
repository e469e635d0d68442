import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useAccount } from '../../api/account';
import { answer, api, type ItemKind, type Schemas, type SheetRow } from '../../api/client';

export type KnownPlace = Schemas['GazetteerPlace'];

const mostRows = 500;

/** Rows of a kind: all, or those in one campaign. */
function useRows(kind: ItemKind, campaignId: number | null) {
  const account = useAccount();
  return useQuery({
    // What changes the sheet changes these rows.
    queryKey: [account.id, 'sheet', 'settings', kind, campaignId],
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      answer(
        api.POST('/api/accounts/{accountId}/sheet', {
          params: { path: { accountId: account.id } },
          body: { kind, campaignId, offset: 0, limit: mostRows },
          signal,
        }),
      ),
  });
}

/** The campaigns with all that is set on them. */
export function useCampaignSettings() {
  return useRows('campaign', null);
}

/** The places of all campaigns. */
export function usePlacesOfCampaigns() {
  return useRows('place', null);
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
