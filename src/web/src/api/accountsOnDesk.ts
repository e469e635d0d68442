import { useQuery } from '@tanstack/react-query';
import { answer, api } from './client';

/** How the accounts of the person stand. */
export function useAccountsOnDesk() {
  return useQuery({
    queryKey: ['accountsOnDesk'],
    queryFn: ({ signal }) => answer(api.GET('/api/desk/accounts', { signal })),
  });
}
