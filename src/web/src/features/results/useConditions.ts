import { useQuery } from '@tanstack/react-query';
import { useAccount } from '../../api/account';
import { answer, api, type Schemas } from '../../api/client';

export type Condition = Schemas['CampaignConditionRow'];

/** What campaigns truly do, whatever their switch says. */
export function useConditions(enabled: boolean) {
  const account = useAccount();
  return useQuery({
    queryKey: [account.id, 'results', 'conditions'],
    enabled,
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/accounts/{accountId}/results/conditions', {
          params: { path: { accountId: account.id } },
          signal,
        }),
      ),
  });
}
