import { keepPreviousData, useMutation, useQuery } from '@tanstack/react-query';
import { useAccount } from '../../api/account';
import { answer, api, type Schemas } from '../../api/client';

export type Conversions = Schemas['ConversionsAnswer'];
export type ConversionAction = Schemas['ConversionActionAnswer'];
export type CampaignGoals = Schemas['CampaignGoals'];
export type AuditFinding = Schemas['AuditFinding'];
export type FollowedVisit = Schemas['FollowedVisit'];
export type Delay = Schemas['DelayAnswer'];

/** What counts, what steers bids, and whether it still works. */
export function useConversions() {
  const account = useAccount();
  return useQuery({
    queryKey: [account.id, 'conversions'],
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/accounts/{accountId}/conversions', {
          params: { path: { accountId: account.id } },
          signal,
        }),
      ),
  });
}

/** The past of a campaign under other goals. */
export function useGoals(campaignId: number, actionIds: readonly number[]) {
  const account = useAccount();
  return useQuery({
    queryKey: [account.id, 'conversions', 'goals', campaignId, actionIds],
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/accounts/{accountId}/conversions/goals/{campaignId}', {
          params: { path: { accountId: account.id, campaignId }, query: { actionIds: [...actionIds] } },
          signal,
        }),
      ),
  });
}

/** Follows a test visit, hop by hop. */
export function useTestVisit() {
  const account = useAccount();
  return useMutation({
    mutationFn: ({ actionId, device }: { actionId: number; device: 'desktop' | 'phone' }) =>
      answer(
        api.POST('/api/accounts/{accountId}/conversions/{actionId}/test-visit', {
          params: { path: { accountId: account.id, actionId }, query: { device } },
        }),
      ),
  });
}
