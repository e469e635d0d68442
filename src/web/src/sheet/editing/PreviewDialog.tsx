import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useDeferredValue, type ReactNode } from 'react';
import type { Command, Schemas } from '../../api/client';
import { useCommand } from '../../api/hooks';
import { postCommand } from '../../api/postCommand';
import { useAccount } from '../../api/account';
import { plural } from '../../ui/format';
import { Button } from '../../ui/Button';
import { ChangeLines } from '../../ui/ChangeLines';
import { Dialog, useAnswer } from '../../ui/Dialog';

interface Props {
  /** None while the form above it is not filled in. */
  command: Command | null;
  /** Name of what is being done, where the command is still to be put together. */
  title?: string;
  /** What the command is put together from. */
  children?: ReactNode;
  onClose: () => void;
  onDone: (result: Schemas['CommandAnswer'], command: Command) => void;
}

/** What a command would do, in counts and in a list, before it does it. The server runs it and takes it back. */
export function PreviewDialog({ command, title, children, onClose, onDone }: Props) {
  const account = useAccount();
  const run = useCommand();
  const shown = useDeferredValue(command);
  const preview = useQuery({
    queryKey: [account.id, 'preview', shown],
    enabled: shown !== null,
    staleTime: 0,
    gcTime: 0,
    retry: false,
    placeholderData: children ? keepPreviousData : undefined,
    queryFn: () => (shown ? postCommand(account.id, shown, true) : Promise.reject(new Error(''))),
  });
  const data = shown && !preview.isError ? preview.data : undefined;
  const fresh = shown === command && !preview.isFetching;
  const ready = !!data && data.items > 0 && fresh && !run.isPending;
  const answer = useAnswer(ready);
  const submit = () => {
    if (command && ready) run.mutate(command, { onSuccess: (result) => onDone(result, command) });
  };
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title={title ?? (data ? data.label : preview.isError ? 'This cannot be done' : 'Looking…')}
      description={
        data
          ? `${plural(data.items, 'item')} would change${data.refusedCount > 0 ? `, ${data.refusedCount.toLocaleString('en-GB')} would be left as before` : ''}.`
          : undefined
      }
      footer={
        <>
          <Button onClick={onClose}>Leave as it is</Button>
          <Button ref={answer} tone="ember" disabled={!ready} onClick={submit}>
            {data ? `Change ${plural(data.items, 'item')}` : 'Change'}
          </Button>
        </>
      }
    >
      {children && (
        <form
          className="mb-3 space-y-2.5 border-b border-line pb-3"
          onSubmit={(event) => {
            event.preventDefault();
            submit();
          }}
        >
          {children}
          <button type="submit" className="hidden" aria-hidden tabIndex={-1} />
        </form>
      )}
      {preview.isError && shown && (
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
        <p className="mt-2 text-ink-3">
          and {(data.items - data.changes.length).toLocaleString('en-GB')} more
        </p>
      )}
    </Dialog>
  );
}
