import { useQuery } from '@tanstack/react-query';
import { useCallback } from 'react';
import { toast } from 'sonner';
import { useAccount } from '../../../api/account';
import { answer, api, type Schemas } from '../../../api/client';
import { tell, useRefresh } from '../../../api/hooks';
import { plural } from '../../../ui/format';

const moved = ['savedSearches', 'checks', 'status'] as const;

/** The searches that are kept as tests of the account, with what became of them. */
export function useSavedSearches() {
  const account = useAccount();
  return useQuery({
    queryKey: [account.id, 'savedSearches'],
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/accounts/{accountId}/saved-searches', {
          params: { path: { accountId: account.id } },
          signal,
        }),
      ),
    refetchInterval: ({ state }) => (state.data?.checking ? 500 : false),
  });
}

/** Saves and removes them; what is removed can be had back at once. */
export function useSavedSearchActs() {
  const account = useAccount();
  const refresh = useRefresh();
  const save = useCallback(
    async (searches: Schemas['SavedSearch'][], said?: string) => {
      try {
        const { saved } = await answer(
          api.POST('/api/accounts/{accountId}/saved-searches', {
            params: { path: { accountId: account.id } },
            body: { searches },
          }),
        );
        toast(
          said ??
            (saved === 0 ? 'These are saved already.' : `${plural(saved, 'search', 'searches')} saved.`),
        );
        await refresh(moved);
        return true;
      } catch (error) {
        tell(error);
        return false;
      }
    },
    [account.id, refresh],
  );
  const remove = useCallback(
    async (ids: number[]) => {
      try {
        const removed = await answer(
          api.POST('/api/accounts/{accountId}/saved-searches/removal', {
            params: { path: { accountId: account.id } },
            body: { ids },
          }),
        );
        toast(`${plural(removed.length, 'saved search', 'saved searches')} removed.`, {
          action: { label: 'Undo', onClick: () => void save(removed, 'Saved again.') },
        });
        await refresh(moved);
      } catch (error) {
        tell(error);
      }
    },
    [account.id, refresh, save],
  );
  return { save, remove };
}
