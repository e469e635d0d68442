import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useAccount } from '../../api/account';
import { answer, api, type Schemas } from '../../api/client';
import type { ComparedDays } from './period';

export type Breakdown = Schemas['Breakdown'];
export type BreakdownRow = Schemas['BreakdownRow'];

/** What a breakdown is asked for. */
export interface BreakdownAsked extends ComparedDays {
  by: Breakdown;
  then?: Breakdown | undefined;
  campaignId?: number | undefined;
  adGroupId?: number | undefined;
  /** Only campaigns that do this. */
  condition?: Schemas['CampaignCondition'] | undefined;
  /** Only campaigns that this saved view shows. */
  view?: string | undefined;
}

/** By what figures can be told apart, and what crosses with what. */
export function useBreakdownChoices() {
  const account = useAccount();
  return useQuery({
    queryKey: [account.id, 'breakdowns'],
    staleTime: Infinity,
    queryFn: () =>
      answer(
        api.GET('/api/accounts/{accountId}/results/breakdowns', {
          params: { path: { accountId: account.id } },
        }),
      ),
  });
}

/** Figures told apart, by one thing or by two. */
export function useBreakdown(asked: BreakdownAsked | null) {
  const account = useAccount();
  return useQuery({
    queryKey: [account.id, 'results', 'breakdown', asked],
    enabled: asked !== null,
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/accounts/{accountId}/results/breakdown', {
          params: { path: { accountId: account.id }, query: asked ?? { by: 'device', first: '', last: '' } },
          signal,
        }),
      ),
  });
}
