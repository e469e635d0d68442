import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useAccount } from '../../api/account';
import { answer, api, type Schemas } from '../../api/client';

export type Budgets = Schemas['BudgetsAnswer'];
export type BudgetRow = Schemas['BudgetRow'];
export type CampaignBudget = Schemas['CampaignBudget'];
export type Month = Schemas['MonthAnswer'];
export type CampaignToday = Schemas['CampaignToday'];
export type Plan = Schemas['PlanAnswer'];
export type Split = Schemas['SplitAnswer'];

/** What campaigns may spend, spend and could spend. */
export function useBudgets(weeks: number) {
  const account = useAccount();
  return useQuery({
    queryKey: [account.id, 'budgets', weeks],
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/accounts/{accountId}/budgets', {
          params: { path: { accountId: account.id }, query: { weeks } },
          signal,
        }),
      ),
  });
}

/** The hours of a campaign's day, and how its budget is shared among its ad groups. */
export function useCampaignBudget(campaignId: number | null, weeks: number, day: string | null) {
  const account = useAccount();
  return useQuery({
    queryKey: [account.id, 'budgets', 'campaign', campaignId, weeks, day],
    enabled: campaignId !== null,
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/accounts/{accountId}/budgets/campaigns/{campaignId}', {
          params: {
            path: { accountId: account.id, campaignId: campaignId ?? 0 },
            query: { weeks, day: day ?? undefined },
          },
          signal,
        }),
      ),
  });
}

/** How the day goes that is not over: what was spent so far, and what is likely to come. */
export function useToday() {
  const account = useAccount();
  return useQuery({
    queryKey: [account.id, 'budgets', 'today'],
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/accounts/{accountId}/budgets/today', {
          params: { path: { accountId: account.id } },
          signal,
        }),
      ),
  });
}

/** Budgets that were changed before, and what came of it. */
export function useMoves() {
  const account = useAccount();
  return useQuery({
    queryKey: [account.id, 'budgets', 'moves'],
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/accounts/{accountId}/budgets/moves', {
          params: { path: { accountId: account.id } },
          signal,
        }),
      ),
  });
}

/** What other budgets would change. */
export function usePlan(
  campaigns: readonly number[],
  typed: ReadonlyMap<number, string>,
  keepsSum: boolean,
  weeks: number,
  otherAccountId: number | null,
  typedThere: ReadonlyMap<number, string>,
) {
  const account = useAccount();
  const elsewhere = [...typedThere].map(([campaignId, budget]) => ({ campaignId, budget }));
  const budgets = campaigns.map((campaignId) => ({ campaignId, budget: typed.get(campaignId) ?? null }));
  return useQuery({
    queryKey: [account.id, 'budgets', 'plan', budgets, keepsSum, weeks, otherAccountId, elsewhere],
    enabled: campaigns.length > 0,
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: ({ signal }) =>
      answer(
        api.POST('/api/accounts/{accountId}/budgets/plan', {
          params: { path: { accountId: account.id } },
          body: { weeks, budgets, keepsSum, proposes: false, otherAccountId, elsewhere },
          signal,
        }),
      ),
  });
}

/** The budgets of the same sum that bring most. */
export function useProposal(campaigns: readonly number[], weeks: number, otherAccountId: number | null) {
  const account = useAccount();
  return () =>
    answer(
      api.POST('/api/accounts/{accountId}/budgets/plan', {
        params: { path: { accountId: account.id } },
        body: {
          weeks,
          budgets: campaigns.map((campaignId) => ({ campaignId, budget: null })),
          keepsSum: true,
          proposes: true,
          otherAccountId,
        },
      }),
    );
}
