import { useQuery } from '@tanstack/react-query';
import type { Command } from '../../api/client';
import { postCommand, useCommand } from '../../api/hooks';
import { useAccount } from '../../app/account';
import { plural } from '../../app/format';
import { Button } from '../../ui/Button';
import { ChangeLines } from '../../ui/ChangeLines';
import { Dialog } from '../../ui/Dialog';

interface Props {
  command: Command;
  onClose: () => void;
  onDone: () => void;
}

/** What a command would do, in counts and in a list, before it does it. The server runs it and takes it back. */
export function PreviewDialog({ command, onClose, onDone }: Props) {
  const account = useAccount();
  const run = useCommand();
  const preview = useQuery({
    queryKey: [account.id, 'preview', command],
    staleTime: 0,
    gcTime: 0,
    retry: false,
    queryFn: () => postCommand(account.id, command, true),
  });
  const data = preview.data;
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title={data ? data.label : preview.isError ? 'This cannot be done' : 'Looking…'}
      description={
        data &&
        `${plural(data.items, 'item')} would change${data.refused.length > 0 ? `, ${data.refused.length} would be left as before` : ''}.`
      }
      footer={
        <>
          <Button onClick={onClose}>Leave as it is</Button>
          <Button
            tone="ember"
            disabled={!data || data.items === 0 || run.isPending}
            onClick={() => run.mutate(command, { onSuccess: onDone })}
          >
            {data ? `Change ${plural(data.items, 'item')}` : 'Change'}
          </Button>
        </>
      }
    >
      {preview.isError && (
        <p role="alert" className="text-brick">
          {preview.error.message}
        </p>
      )}
      {data && data.refused.length > 0 && (
        <ul className="mb-3 space-y-0.5">
          {data.refused.slice(0, 50).map((item, place) => (
            <li key={place} className="text-ochre">
              <b>{item.name}</b> {item.reason}
            </li>
          ))}
        </ul>
      )}
      {data && <ChangeLines lines={data.changes} />}
      {data && data.items > data.changes.length && (
        <p className="mt-2 text-ink-3">and {data.items - data.changes.length} more</p>
      )}
    </Dialog>
  );
}
