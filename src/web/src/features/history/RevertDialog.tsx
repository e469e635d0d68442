import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import { answer, api, ApiProblem, type Schemas } from '../../api/client';
import { tell, useRefresh } from '../../api/hooks';
import { useAccount } from '../../api/account';
import { sendNamed } from '../../api/waiting';
import { plural } from '../../ui/format';
import { Button } from '../../ui/Button';
import { ChangeLines } from '../../ui/ChangeLines';
import { seenAd } from '../../items/SeenAd';
import { ConfirmButton, useConfirmed } from '../../ui/ConfirmButton';
import { Dialog } from '../../ui/Dialog';
import { RefusedRows } from '../../sheet/editing/RefusedRows';
import { usePreview } from '../../api/usePreview';

export type Way = 'takeBack' | 'goBack';

interface Props {
  way: Way;
  step: Schemas['HistoryEntry'];
  onClose: () => void;
}

const paths = { takeBack: 'take-back', goBack: 'go-back' } as const;

/** A way back through the history, shown before it is gone. */
export function RevertDialog({ way, step, onClose }: Props) {
  const account = useAccount();
  const refresh = useRefresh();
  const [news, setNews] = useState<string | null>(null);
  const revert = (
    query: { preview: boolean; asOf?: number; items?: number },
    requestId?: string,
    signal?: AbortSignal,
  ) =>
    answer(
      api.POST(`/api/accounts/{accountId}/history/{stepId}/${paths[way]}`, {
        params: {
          path: { accountId: account.id, stepId: step.id },
          query,
          header: requestId ? { 'X-Fendrik-Request': requestId } : {},
        },
        signal,
      }),
    );
  const { data, error, fresh, renew } = usePreview(`${way} ${step.id}`, (signal) =>
    revert({ preview: true }, undefined, signal),
  );
  const run = useMutation({
    mutationFn: () =>
      sendNamed(account.id, (requestId, signal) =>
        revert({ preview: false, asOf: data?.asOf, items: data?.items }, requestId, signal),
      ),
    onSuccess: async (result) => {
      toast(result.label);
      onClose();
      await refresh();
    },
    onError: (problem) => {
      if (!(problem instanceof ApiProblem) || problem.status !== 412) return tell(problem);
      setNews(problem.message);
      renew();
    },
  });
  const ready = fresh && !!data && data.items > 0 && !run.isPending;
  const { confirm, waits } = useConfirmed({
    of: way,
    ready,
    never: fresh && !ready,
    clear: data?.refusedCount === 0 && news === null,
    onConfirm: run.mutate,
  });
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title={way === 'takeBack' ? `Undo just “${step.label}”` : `Go back to right after “${step.label}”`}
      description={
        data &&
        (data.items === 0
          ? data.refusedCount > 0
            ? 'None of it can be taken back as things stand.'
            : 'Nothing would change: all is so already.'
          : `${plural(data.items, 'item')} would change. It becomes a step of its own, so it can be undone.`)
      }
      footer={
        <>
          <Button onClick={onClose}>Leave as it is</Button>
          <ConfirmButton open={ready || !fresh} onPress={confirm}>
            {waits ? 'As soon as it is counted…' : way === 'takeBack' ? 'Undo it' : 'Bring all back'}
          </ConfirmButton>
        </>
      }
    >
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
      {data && <RefusedRows rows={data.refused} count={data.refusedCount} />}
      {data && <ChangeLines lines={data.changes} showPlace picture={seenAd} />}
    </Dialog>
  );
}
