import { useQuery } from '@tanstack/react-query';
import { useAccount } from './account';
import { answer, api, type Schemas } from './client';

export type Look = Schemas['LookView'];

/** Second looks of the account: those that wait first. */
export function useLooks() {
  const account = useAccount();
  return useQuery({
    queryKey: [account.id, 'looks'],
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/accounts/{accountId}/looks', { params: { path: { accountId: account.id } }, signal }),
      ),
  });
}

/** A second look with the changes that it is about. */
export function useLook(lookId: number | null) {
  const account = useAccount();
  return useQuery({
    queryKey: [account.id, 'looks', lookId],
    enabled: lookId !== null,
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/accounts/{accountId}/looks/{lookId}', {
          params: { path: { accountId: account.id, lookId: lookId ?? 0 } },
          signal,
        }),
      ),
  });
}
