import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import { useAccount } from '../../api/account';
import { answer, api, type ItemReference } from '../../api/client';
import { tell } from '../../api/hooks';
import { Button } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { TextArea } from '../../ui/Field';
import { plural } from '../../ui/format';

/** Somebody who publishes is asked to check changes first. */
export function AskLookDialog({ items, onClose }: { items: readonly ItemReference[]; onClose: () => void }) {
  const account = useAccount();
  const queries = useQueryClient();
  const [note, setNote] = useState('');
  const ask = async () => {
    try {
      await answer(
        api.POST('/api/accounts/{accountId}/looks', {
          params: { path: { accountId: account.id } },
          body: { items: [...items], note },
        }),
      );
      toast('It stands on the desk of whoever publishes here.');
      await queries.invalidateQueries({ queryKey: [account.id, 'looks'] });
      onClose();
    } catch (error) {
      tell(error);
    }
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title={`Ask for a second look at ${plural(items.length, 'change')}`}
      description="A publisher sees just these, and publishes or returns them. You may go on meanwhile."
      footer={
        <Button tone="ember" onClick={() => void ask()}>
          Ask
        </Button>
      }
    >
      <TextArea
        label="What to look at"
        rows={4}
        value={note}
        onChange={(event) => setNote(event.target.value)}
        onKeyDown={(event) => {
          if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) void ask();
        }}
      />
    </Dialog>
  );
}
