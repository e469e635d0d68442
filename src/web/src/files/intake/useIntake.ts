import { useQuery } from '@tanstack/react-query';
import { useCallback, useState } from 'react';
import { toast } from 'sonner';
import { answer, api, problemOf, requestToken, type Job, type Schemas } from '../../api/client';
import { tell, useJob, useRefresh } from '../../api/hooks';
import { useAccount } from '../../api/account';
import { useLists } from '../../api/lists';

/** One list on its way into the working copy: sent, read, mended, kept or left. */
export function useIntake(wished: number | null) {
  const account = useAccount();
  const refresh = useRefresh();
  const lists = useLists();
  const [chosen, setChosen] = useState<number | null>(wished);
  const [jobId, setJobId] = useState<number | null>(null);
  const [uploading, setUploading] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const intakeId = chosen ?? lists.data?.intakeId ?? null;
  const path = { accountId: account.id, intakeId: intakeId ?? 0 };
  const intake = useQuery({
    queryKey: [account.id, 'intake', intakeId],
    enabled: intakeId !== null,
    // Asked again while it is read: the end of the job may come in ahead of the first answer, which is old then.
    refetchInterval: (current) => (current.state.data?.state === 'reading' ? 400 : false),
    queryFn: () => answer(api.GET('/api/accounts/{accountId}/intakes/{intakeId}', { params: { path } })),
  });
  const renew = useCallback(() => refresh(['intake', 'intakeRows', 'openIntake']), [refresh]);
  const onEnd = useCallback(
    (job: Job) => {
      if (job.state === 'failed') setProblem(job.message ?? 'The list could not be read.');
      if (job.state === 'cancelled') toast('Cancelled. Nothing was brought in.');
      void refresh();
      void renew();
    },
    [refresh, renew],
  );
  const { job, isRunning, cancel } = useJob(jobId, onEnd);

  /** Begins a job of the list; what is wrong stands beside the list. */
  const begin = async (send: () => Promise<Job>) => {
    setProblem(null);
    try {
      setJobId((await send()).id);
    } catch (error) {
      setProblem(error instanceof Error ? error.message : 'That could not be done.');
    }
  };
  const send = useCallback(
    async (content: Blob, name: string) => {
      setProblem(null);
      setUploading(true);
      try {
        // The file goes as it is, not as a form: it is streamed on both sides.
        const response = await fetch(
          `/api/accounts/${account.id}/intakes?fileName=${encodeURIComponent(name)}`,
          {
            method: 'POST',
            body: content,
            headers: { 'Content-Type': 'application/octet-stream', 'X-Fendrik-Token': requestToken() },
          },
        );
        const body: unknown = await response.json().catch(() => null);
        if (!response.ok) throw problemOf(response.status, body);
        const begun = body as Schemas['IntakeBegun'];
        setChosen(begun.intakeId);
        setJobId(begun.job.id);
      } catch (error) {
        setProblem(error instanceof Error ? error.message : 'The list could not be sent.');
      } finally {
        setUploading(false);
      }
    },
    [account.id],
  );
  const leave = async (id = intakeId) => {
    if (id !== null) {
      try {
        await answer(
          api.DELETE('/api/accounts/{accountId}/intakes/{intakeId}', {
            params: { path: { accountId: account.id, intakeId: id } },
          }),
        );
      } catch (error) {
        tell(error);
      }
    }
    if (id === intakeId) {
      setChosen(null);
      setJobId(null);
    }
    await renew();
  };
  const view = intake.data;
  const isShown =
    view !== undefined &&
    (view.state === 'ready' || (view.state === 'reading' && view.counts.length > 0 && isRunning));
  return {
    view,
    lists: lists.data,
    isShown,
    /** Nothing can be shown yet. */
    isBusy: uploading || (isRunning && !isShown) || (view?.state === 'reading' && !isShown),
    isWorking: isRunning,
    uploading,
    problem,
    job,
    /** It was brought in by this page. */
    isKept: view?.state === 'kept' && chosen !== null,
    send,
    cancel,
    leave,
    renew,
    choose: setChosen,
    keep: () =>
      begin(() =>
        answer(api.POST('/api/accounts/{accountId}/intakes/{intakeId}/keep', { params: { path } })),
      ),
    setColumns: (columns: Schemas['IntakeColumns']) =>
      begin(() =>
        answer(
          api.PUT('/api/accounts/{accountId}/intakes/{intakeId}/columns', {
            params: { path },
            body: columns,
          }),
        ),
      ),
    /** Mends a cell; what is wrong with it is said by the row itself. */
    mend: async (mend: Schemas['IntakeMend']) => {
      try {
        await answer(
          api.POST('/api/accounts/{accountId}/intakes/{intakeId}/mend', { params: { path }, body: mend }),
        );
      } catch (error) {
        tell(error);
      }
      await renew();
    },
  };
}

export type Intake = ReturnType<typeof useIntake>;
