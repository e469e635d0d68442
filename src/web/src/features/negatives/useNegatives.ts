import { useQuery } from '@tanstack/react-query';
import { answer, api } from '../../api/client';
import { useAccount } from '../../api/account';

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
