import { useAccount } from '../../../api/account';
import { answer, api, type ItemReference } from '../../../api/client';
import { useAct } from '../../../api/hooks';

/** What is said of a look and done with it; what it moves is read anew. */
export function useLookActs(lookId: number) {
  const account = useAccount();
  const { act, busy } = useAct([account.id, 'looks']);
  const params = { path: { accountId: account.id, lookId } };
  return {
    act,
    busy,
    params,
    say: (text: string, about: ItemReference | null) =>
      act(
        () =>
          answer(
            api.POST('/api/accounts/{accountId}/looks/{lookId}/remarks', { params, body: { text, about } }),
          ),
        null,
      ),
    again: (said: string) =>
      act(() => answer(api.POST('/api/accounts/{accountId}/looks/{lookId}/again', { params })), said),
    end: (said: string) =>
      act(() => answer(api.POST('/api/accounts/{accountId}/looks/{lookId}/withdraw', { params })), said),
  };
}
