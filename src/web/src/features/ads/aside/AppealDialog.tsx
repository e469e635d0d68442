import { useState, type FormEvent } from 'react';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useAccount } from '../../../api/account';
import { answer, api, type SheetRow } from '../../../api/client';
import { Button } from '../../../ui/Button';
import { Dialog } from '../../../ui/Dialog';
import { TextArea } from '../../../ui/Field';

/** Asks the network for another reader of what was refused. */
export function AppealDialog({ row, onClose }: { row: SheetRow; onClose: () => void }) {
  const account = useAccount();
  const queries = useQueryClient();
  const [word, setWord] = useState('');
  const appeal = useMutation({
    mutationFn: () =>
      answer(
        api.POST('/api/accounts/{accountId}/appeals', {
          params: { path: { accountId: account.id } },
          body: { kind: row.kind, itemId: row.id, word },
        }),
      ),
    onSuccess: async () => {
      await queries.invalidateQueries({ queryKey: [account.id] });
      onClose();
    },
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    appeal.mutate();
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title="Ask for another reader"
      footer={
        <>
          <Button onClick={onClose}>Leave</Button>
          <Button tone="ember" type="submit" form="appeal" disabled={appeal.isPending}>
            Send the appeal
          </Button>
        </>
      }
    >
      <form id="appeal" onSubmit={submit} className="flex flex-col gap-2">
        <p className="text-ink-2">
          The text that the network has is read once more, by somebody else, in the reviewers’ hours. It can
          be asked once; after that, only a changed text is read again.
        </p>
        <TextArea
          label="Why it should be let through"
          rows={3}
          autoFocus
          value={word}
          problem={appeal.error?.message ?? null}
          onChange={(event) => setWord(event.target.value)}
        />
      </form>
    </Dialog>
  );
}
