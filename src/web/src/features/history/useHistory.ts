import { useInfiniteQuery } from '@tanstack/react-query';
import { answer, api } from '../../api/client';
import { useAccount } from '../../api/account';

const pageSize = 100;

/** The steps of an account, newest first, a page at a time. */
export function useHistory(person: string | null) {
  const account = useAccount();
  return useInfiniteQuery({
    queryKey: [account.id, 'history', person],
    initialPageParam: undefined as number | undefined,
    queryFn: ({ pageParam }) =>
      answer(
        api.GET('/api/accounts/{accountId}/history', {
          params: {
            path: { accountId: account.id },
            query: { before: pageParam, person: person ?? undefined },
          },
        }),
      ),
    getNextPageParam: (last) => (last.length === pageSize ? last[last.length - 1]?.id : undefined),
  });
}
