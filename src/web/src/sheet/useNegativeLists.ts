import { useQuery } from '@tanstack/react-query';
import { answer, api } from '../api/client';
import { useAccount } from '../api/account';
import { plainLook, queryOf } from './views/look';
import { requestOf } from './selection';

const mostLists = 500;

/** The shared lists of the account. */
export function useNegativeLists() {
  const account = useAccount();
  return useQuery({
    queryKey: [account.id, 'sheet', 'lists'],
    queryFn: () =>
      answer(
        api.POST('/api/accounts/{accountId}/sheet', {
          params: { path: { accountId: account.id } },
          body: {
            ...requestOf(
              queryOf(plainLook, 'negativeList', {
                campaignId: null,
                adGroupId: null,
                stepId: null,
              }),
            ),
            limit: mostLists,
          },
        }),
      ),
  });
}
