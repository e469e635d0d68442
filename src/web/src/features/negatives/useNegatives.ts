import { useQuery } from '@tanstack/react-query';
import { answer, api } from '../../api/client';
import { useAccount } from '../../api/account';
import { plainLook, queryOf } from '../../sheet/views/look';
import { requestOf } from '../../sheet/selection';

const mostLists = 500;

/** The shared lists of the account. */
export function useLists() {
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

/** The negatives held against keywords and searches. */
export function useReview(enabled: boolean) {
  const account = useAccount();
  return useQuery({
    queryKey: [account.id, 'negatives'],
    enabled,
    staleTime: 30_000,
    queryFn: () =>
      answer(
        api.GET('/api/accounts/{accountId}/negatives/review', {
          params: { path: { accountId: account.id } },
        }),
      ),
  });
}
