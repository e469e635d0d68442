import { useQuery } from '@tanstack/react-query';
import { useAccount } from '../../api/account';
import { answer, api } from '../../api/client';

/** The columns that a list can have. */
export function useColumnChoices() {
  const account = useAccount();
  return useQuery({
    queryKey: [account.id, 'intakeColumns'],
    staleTime: Infinity,
    queryFn: () =>
      answer(
        api.GET('/api/accounts/{accountId}/intakes/columns', { params: { path: { accountId: account.id } } }),
      ),
  });
}
