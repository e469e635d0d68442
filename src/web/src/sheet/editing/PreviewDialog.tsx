import { useState, type ReactNode } from 'react';
import type { ApiProblem, Command, Schemas } from '../../api/client';
import { useCommand } from '../../api/hooks';
import { postCommand } from '../../api/postCommand';
import { useAccount } from '../../api/account';
import { useVariant } from '../../api/variant';
import { usePreview } from '../../api/usePreview';
import { plural } from '../../ui/format';
import { Button } from '../../ui/Button';
import { ChangeLines } from '../../ui/ChangeLines';
import { seenAd } from '../../items/SeenAd';
import { ConfirmButton, useConfirmed } from '../../ui/ConfirmButton';
import { Dialog } from '../../ui/Dialog';
import { RefusedRows } from './RefusedRows';
import { Warnings } from './Warnings';

interface Props {
  /** None while the form above it is not filled in. */
  command: Command | null;
  /** Name of what is being done, where the command is still to be put together. */
  title?: string;
  /** What the command is put together from. */
  children?: ReactNode;
  onClose: () => void;
  onDone: (result: Schemas['CommandAnswer'], command: Command) => void;
  /** Shows what was touched, where that is a page's to show. */
  onShow?: (stepId: number) => void;
}

const typingRests = 220;
const moved = 412;

/** What a command would do, in counts and in a list, before it does it. The server runs it and takes it back. */
export function PreviewDialog({ command, title, children, onClose, onDone, onShow }: Props) {
  const account = useAccount();
  const variant = useVariant();
  const [news, setNews] = useState<string | null>(null);
  const asked = command && JSON.stringify(command);
  const preview = usePreview(
    asked,
    (signal) => postCommand(account.id, command as Command, true, variant, signal),
    children ? typingRests : 0,
  );
  const run = useCommand({
    onShow,
    onProblem: (problem: ApiProblem) => {
      setNews(problem.message);
      if (problem.status === moved) preview.renew();
    },
  });
  const { data, error, fresh } = preview;
  const shown = error ? undefined : data;
  const ready = fresh && !!shown && shown.items > 0 && !run.isPending;
  const { confirm, waits } = useConfirmed({
    of: asked ?? '',
    ready,
    never: asked === null || (fresh && !ready),
    // What is left as before, or what just moved, is looked at first.
    clear: shown?.refusedCount === 0 && shown.warnings.length === 0 && news === null,
    onConfirm: () => {
      if (command && shown)
        run.mutate(
          { ...command, shown: { asOf: shown.asOf, items: shown.items } },
          { onSuccess: (result) => onDone(result, command) },
        );
    },
  });
  const doing = run.isPending ? 'Working…' : waits ? 'As soon as it is counted…' : null;
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title={title ?? (shown ? shown.label : error ? 'This cannot be done' : 'Looking…')}
      description={
        shown
          ? `${plural(shown.items, 'item')} would change${variant === null ? '' : ' if it is taken over'}${shown.refusedCount > 0 ? `, ${shown.refusedCount.toLocaleString('en-GB')} would be left as before` : ''}.`
          : undefined
      }
      footer={
        <>
          <Button onClick={onClose}>Leave as it is</Button>
          <ConfirmButton open={ready || (!fresh && asked !== null)} onPress={confirm}>
            {doing ??
              (shown && fresh
                ? `${variant === null ? 'Change' : 'Propose'} ${plural(shown.items, 'item')}`
                : variant === null
                  ? 'Change'
                  : 'Propose')}
          </ConfirmButton>
        </>
      }
    >
      {children && (
        <form
          className="mb-3 space-y-2.5 border-b border-line pb-3"
          onSubmit={(event) => {
            event.preventDefault();
            confirm();
          }}
          onKeyDown={(event) => {
            // Where Enter begins a new line, Ctrl Enter says yes.
            if (event.key !== 'Enter' || !(event.ctrlKey || event.metaKey)) return;
            event.preventDefault();
            confirm();
          }}
        >
          {children}
          <button type="submit" className="hidden" aria-hidden tabIndex={-1} />
        </form>
      )}
      {news && (
        <p role="alert" className="mb-3 rounded-sm bg-ochre-wash px-2 py-1">
          {news}
        </p>
      )}
      {error && (
        <p role="alert" className="text-brick">
          {error.message}
        </p>
      )}
      {shown && <Warnings warnings={shown.warnings} />}
      {shown && <RefusedRows rows={shown.refused} count={shown.refusedCount} />}
      {shown && <ChangeLines lines={shown.changes} showPlace picture={seenAd} />}
      {shown && shown.items > shown.changes.length && (
        <p className="mt-2 text-ink-3">
          and {(shown.items - shown.changes.length).toLocaleString('en-GB')} more
        </p>
      )}
    </Dialog>
  );
}
