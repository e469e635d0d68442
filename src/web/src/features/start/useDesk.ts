import { useQuery } from '@tanstack/react-query';
import { useAccount } from '../../api/account';
import { answer, api, type Schemas } from '../../api/client';

export type DeskItem = Schemas['DeskItem'];

/** What is worth doing in this account, by the money in it. */
export function useDesk() {
  const account = useAccount();
  return useQuery({
    queryKey: [account.id, 'desk'],
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/accounts/{accountId}/desk', { params: { path: { accountId: account.id } }, signal }),
      ),
  });
}

/** Where each is looked after, and what that is called. */
export const ways: Record<DeskItem['topic'], (item: DeskItem) => { to: string; way: string }> = {
  refused: () => ({ to: 'ship/changes', way: 'Mend it' }),
  calls: () => ({ to: 'learn/calls', way: 'Look at the calls' }),
  word: (item) => ({
    to: `learn/terms?word=${encodeURIComponent(item.name ?? '')}`,
    way: 'Look at the terms',
  }),
  budget: (item) => ({ to: `price/budgets?campaign=${item.campaignId ?? ''}`, way: 'Move money' }),
  tracking: () => ({ to: 'learn/conversions', way: 'Open the audit' }),
  dearer: (item) => ({
    to: `learn/results?period=last7&campaign=${item.campaignId ?? ''}`,
    way: 'See what moved it',
  }),
  alert: (item) => ({
    to: `learn/results?period=last7${item.campaignId ? `&campaign=${item.campaignId}` : ''}`,
    way: 'Look at the days',
  }),
};
