import { useQuery } from '@tanstack/react-query';
import { useAccount } from './account';
import { answer, api, type Schemas } from './client';

const none: readonly Schemas['NamedFinding'][] = [];

/** What the network's reviewers refused and nobody has changed since. */
export function useRefusals(): readonly Schemas['NamedFinding'][] {
  const account = useAccount();
  const found = useQuery({
    queryKey: [account.id, 'checks', 'refused'],
    queryFn: () =>
      answer(
        api.GET('/api/accounts/{accountId}/checks', {
          params: { path: { accountId: account.id }, query: { code: 'refused' } },
        }),
      ),
  });
  return found.data?.findings ?? none;
}
