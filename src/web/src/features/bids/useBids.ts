import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useAccount } from '../../api/account';
import { answer, api, type Schemas } from '../../api/client';

export type Segments = Schemas['SegmentsAnswer'];
export type SegmentRow = Schemas['SegmentRow'];

/** All campaigns with how much there is to say of their segments. */
export function useSegmentedCampaigns(weeks: number, enabled: boolean) {
  const account = useAccount();
  return useQuery({
    queryKey: [account.id, 'bids', 'campaigns', weeks],
    enabled,
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/accounts/{accountId}/bids/campaigns', {
          params: { path: { accountId: account.id }, query: { weeks } },
          signal,
        }),
      ),
  });
}

export interface Rule {
  half: number;
  nineTenths: number;
  never: number;
}

/** What the segments of a campaign brought, and what follows. */
export function useSegments(campaignId: number | null, weeks: number, rule: Rule) {
  const account = useAccount();
  return useQuery({
    queryKey: [account.id, 'bids', campaignId, weeks, rule],
    enabled: campaignId !== null,
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/accounts/{accountId}/bids/campaigns/{campaignId}', {
          params: {
            path: { accountId: account.id, campaignId: campaignId ?? 0 },
            query: { weeks, ...rule },
          },
          signal,
        }),
      ),
  });
}
