import { useMemo } from 'react';
import { AccountContext, useAccount, useSession } from '../../../api/account';
import type { Schemas } from '../../../api/client';
import { useProposing, VariantContext } from '../../../api/variant';
import { ShownSheet } from './ShownSheet';

/**
 * A campaign that is shown, whole, as it would be with what is proposed. Whoever looks may propose: nothing that is done here
 * changes the working copy but what is taken over.
 */
export function ShownCampaign({ data, campaignId }: { data: Schemas['LookAnswer']; campaignId: number }) {
  const session = useSession();
  const account = useAccount();
  const isOpen = data.look.state === 'open';
  useProposing();
  const around = useMemo(
    () => ({ session, account: { ...account, mayChange: account.mayChange || isOpen } }),
    [session, account, isOpen],
  );
  return (
    <AccountContext value={around}>
      <VariantContext value={data.look.id}>
        <ShownSheet data={data} campaignId={campaignId} mayDecide={account.mayChange && isOpen} />
      </VariantContext>
    </AccountContext>
  );
}
