import { useState } from 'react';
import { toast } from 'sonner';
import { answer, api, type ItemReference } from '../../api/client';
import { tell, useRefresh } from '../../api/hooks';
import { useAccount } from '../../api/account';
import { plural } from '../../ui/format';

/** Holds changes back from publishing and lets them go; takes them back after a look. */
export function useHolding() {
  const account = useAccount();
  const refresh = useRefresh();
  const [takingBack, setTakingBack] = useState(false);
  const hold = async (items: ItemReference[], holds: boolean) => {
    try {
      const { items: changed } = await answer(
        api.POST('/api/accounts/{accountId}/pending/hold', {
          params: { path: { accountId: account.id } },
          body: { items, hold: holds },
        }),
      );
      toast(
        holds
          ? `${plural(changed, 'change')} held back: no publish sends them until they are let go.`
          : `${plural(changed, 'change')} let go.`,
      );
    } catch (error) {
      tell(error);
    }
    await refresh(['pending', 'status']);
  };
  return { hold, takingBack, setTakingBack };
}
