import { useMutation, useQuery } from '@tanstack/react-query';
import { toast } from 'sonner';
import { answer, api, type Schemas } from '../../api/client';
import { tell, useRefresh } from '../../api/hooks';
import { useAccount } from '../../api/account';
import { sendNamed } from '../../api/waiting';
import { plural } from '../../ui/format';
import { Button } from '../../ui/Button';
import { ChangeLines } from '../../ui/ChangeLines';
import { Dialog, useAnswer } from '../../ui/Dialog';

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
  const revert = (preview: boolean, requestId?: string, signal?: AbortSignal) =>
    answer(
      api.POST(`/api/accounts/{accountId}/history/{stepId}/${paths[way]}`, {
        params: {
          path: { accountId: account.id, stepId: step.id },
          query: { preview },
          header: requestId ? { 'X-Fendrik-Request': requestId } : {},
        },
        signal,
      }),
    );
  const preview = useQuery({
    queryKey: [account.id, 'revert', way, step.id],
    staleTime: 0,
    gcTime: 0,
    retry: false,
    queryFn: () => revert(true),
  });
  const run = useMutation({
    mutationFn: () => sendNamed(account.id, (requestId, signal) => revert(false, requestId, signal)),
    onSuccess: async (result) => {
      toast(result.label);
      onClose();
      await refresh();
    },
    onError: tell,
  });
  const data = preview.data;
  const ready = !!data && data.items > 0 && !run.isPending;
  const answerButton = useAnswer(ready);
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title={way === 'takeBack' ? `Undo just “${step.label}”` : `Go back to right after “${step.label}”`}
      description={
        data &&
        (data.items === 0
          ? 'Nothing would change: all is so already.'
          : `${plural(data.items, 'item')} would change. It becomes a step of its own, so it can be undone.`)
      }
      footer={
        <>
          <Button onClick={onClose}>Leave as it is</Button>
          <Button ref={answerButton} tone="ember" disabled={!ready} onClick={() => run.mutate()}>
            {way === 'takeBack' ? 'Undo it' : 'Bring all back'}
          </Button>
        </>
      }
    >
      {preview.isError && (
        <p role="alert" className="text-brick">
          {preview.error.message}
        </p>
      )}
      {data && <ChangeLines lines={data.changes} />}
    </Dialog>
  );
}
