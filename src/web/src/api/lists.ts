import { useQuery } from '@tanstack/react-query';
import { useAccount } from './account';
import { answer, api } from './client';

/** The lists that wait to be brought in, and the last that came in. */
export function useLists() {
  const account = useAccount();
  return useQuery({
    queryKey: [account.id, 'openIntake'],
    queryFn: () =>
      answer(
        api.GET('/api/accounts/{accountId}/intakes/open', { params: { path: { accountId: account.id } } }),
      ),
  });
}
