import { useQuery } from '@tanstack/react-query';
import { useAccount } from '../../api/account';
import { answer, api } from '../../api/client';

/** What a sheet can be filtered and sorted by. */
export function useSheetFields() {
  const account = useAccount();
  return useQuery({
    queryKey: [account.id, 'sheetFields'],
    staleTime: Infinity,
    queryFn: () =>
      answer(
        api.GET('/api/accounts/{accountId}/sheet/fields', { params: { path: { accountId: account.id } } }),
      ),
  });
}
