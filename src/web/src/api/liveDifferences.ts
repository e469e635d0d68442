import { useQuery } from '@tanstack/react-query';
import { useAccount } from './account';
import { answer, api } from './client';

/** What somebody changed on the network itself and nobody has decided about. */
export function useLiveDifferences() {
  const account = useAccount();
  return useQuery({
    queryKey: [account.id, 'live'],
    queryFn: () =>
      answer(api.GET('/api/accounts/{accountId}/live', { params: { path: { accountId: account.id } } })),
  });
}
