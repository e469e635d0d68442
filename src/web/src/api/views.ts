import { useQuery, useQueryClient } from '@tanstack/react-query';
import { toast } from 'sonner';
import { useAccount } from './account';
import { answer, api, type Schemas } from './client';
import { tell } from './hooks';

export type NamedView = Schemas['NamedView'];

/** The views that the person saved at this account, from sheets and from results: one list for both. */
export function useViews() {
  const account = useAccount();
  const queries = useQueryClient();
  const path = { accountId: account.id };
  const { data } = useQuery({
    queryKey: [account.id, 'views'],
    queryFn: ({ signal }) => answer(api.GET('/api/accounts/{accountId}/views', { params: { path }, signal })),
  });
  /** False where it could not be done; what is wrong is told. */
  const change = async (work: () => Promise<unknown>, said: string) => {
    try {
      await work();
      toast(said);
      return true;
    } catch (error) {
      tell(error);
      return false;
    } finally {
      await queries.invalidateQueries({ queryKey: [account.id, 'views'] });
    }
  };
  return {
    all: data ?? [],
    save: (name: string, body: Schemas['SheetLook']) =>
      change(
        () =>
          answer(
            api.PUT('/api/accounts/{accountId}/views/{name}', { params: { path: { ...path, name } }, body }),
          ),
        `Saved as “${name}”.`,
      ),
    remove: (name: string) =>
      change(
        () =>
          answer(
            api.DELETE('/api/accounts/{accountId}/views/{name}', { params: { path: { ...path, name } } }),
          ),
        `“${name}” is no view any more.`,
      ),
  };
}

export type Views = ReturnType<typeof useViews>;
