import { useQuery } from '@tanstack/react-query';
import { useCallback, useEffect, useRef, useState, type DragEvent } from 'react';
import { toast } from 'sonner';
import { answer, api, problemOf, requestToken, type Job, type Schemas } from '../../api/client';
import { tell, useJob, useRefresh } from '../../api/hooks';
import { useAccount } from '../../api/account';
import { whole } from '../../ui/format';
import { useGo } from '../../app/scope';
import { Button } from '../../ui/Button';
import { PageHead } from '../../ui/Panel';
import { Progress } from '../../ui/Progress';
import { IntakePanel } from './IntakePanel';
import { IntakeTable } from './IntakeTable';
import { IntakeWelcome } from './IntakeWelcome';

export function IntakePage() {
  const account = useAccount();
  const refresh = useRefresh();
  const go = useGo();
  const [chosen, setChosen] = useState<number | null>(null);
  const [jobId, setJobId] = useState<number | null>(null);
  const [uploading, setUploading] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const [over, setOver] = useState(false);
  const chooser = useRef<HTMLInputElement>(null);

  const open = useQuery({
    queryKey: [account.id, 'openIntake'],
    queryFn: () =>
      answer(
        api.GET('/api/accounts/{accountId}/intakes/open', { params: { path: { accountId: account.id } } }),
      ),
  });
  const intakeId = chosen ?? open.data?.intakeId ?? null;
  const intake = useQuery({
    queryKey: [account.id, 'intake', intakeId],
    enabled: intakeId !== null,
    // Asked again while it is read: the end of the job may come in ahead of the first answer, which is old then.
    refetchInterval: (current) => (current.state.data?.state === 'reading' ? 400 : false),
    queryFn: () =>
      answer(
        api.GET('/api/accounts/{accountId}/intakes/{intakeId}', {
          params: { path: { accountId: account.id, intakeId: intakeId ?? 0 } },
        }),
      ),
  });

  const onEnd = useCallback(
    (job: Job) => {
      if (job.state === 'failed') setProblem(job.message ?? 'The list could not be read.');
      if (job.state === 'cancelled') toast('Cancelled. Nothing was brought in.');
      if (job.kind === 'keep' && job.state === 'done') toast.success(job.message ?? 'Brought in.');
      void refresh();
      void refresh(['intake', 'intakeRows', 'openIntake']);
    },
    [refresh],
  );
  const { job, isRunning, cancel } = useJob(jobId, onEnd);

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

  useEffect(() => {
    const onPaste = (event: ClipboardEvent) => {
      const target = event.target;
      if (target instanceof HTMLElement && /^(INPUT|TEXTAREA)$/.test(target.tagName)) return;
      const file = event.clipboardData?.files[0];
      const text = event.clipboardData?.getData('text/plain') ?? '';
      if (file && !text) void send(file, file.name);
      else if (text.trim()) void send(new Blob([text]), 'pasted list');
    };
    window.addEventListener('paste', onPaste);
    return () => window.removeEventListener('paste', onPaste);
  }, [send]);

  const onDrop = (event: DragEvent) => {
    event.preventDefault();
    setOver(false);
    const file = event.dataTransfer.files[0];
    if (file) void send(file, file.name);
  };
  const leave = async () => {
    if (intakeId !== null) {
      try {
        await answer(
          api.DELETE('/api/accounts/{accountId}/intakes/{intakeId}', {
            params: { path: { accountId: account.id, intakeId } },
          }),
        );
      } catch (error) {
        tell(error);
      }
    }
    setChosen(null);
    setJobId(null);
    await refresh(['openIntake']);
  };
  const keep = async () => {
    if (intakeId === null) return;
    setProblem(null);
    try {
      setJobId(
        (
          await answer(
            api.POST('/api/accounts/{accountId}/intakes/{intakeId}/keep', {
              params: { path: { accountId: account.id, intakeId } },
            }),
          )
        ).id,
      );
    } catch (error) {
      tell(error);
    }
  };
  const setColumns = async (columns: Schemas['IntakeColumns']) => {
    if (intakeId === null) return;
    setProblem(null);
    try {
      setJobId(
        (
          await answer(
            api.PUT('/api/accounts/{accountId}/intakes/{intakeId}/columns', {
              params: { path: { accountId: account.id, intakeId } },
              body: columns,
            }),
          )
        ).id,
      );
    } catch (error) {
      setProblem(error instanceof Error ? error.message : 'The columns could not be set.');
    }
  };

  const view = intake.data;
  const shown =
    view && (view.state === 'ready' || (view.state === 'reading' && view.counts.length > 0 && isRunning));
  const busy = uploading || (isRunning && !shown) || (view?.state === 'reading' && !shown);
  return (
    <div
      className="h-full"
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={onDrop}
    >
      <input
        ref={chooser}
        type="file"
        aria-label="List to bring in"
        accept=".csv,.tsv,.txt,.xlsx,.json"
        className="sr-only"
        tabIndex={-1}
        onChange={(event) => {
          const file = event.target.files?.[0];
          event.target.value = '';
          if (file) void send(file, file.name);
        }}
      />
      {shown ? (
        <div className="grid h-full grid-cols-1 min-[900px]:grid-cols-[minmax(0,1fr)_344px]">
          <section aria-label="List" className="flex min-h-0 min-w-0 flex-col bg-sheet">
            <PageHead
              title="Intake"
              note={`${view.fileName} · ${whole(view.rowsRead)} rows read${view.encoding ? ` as ${view.encoding}` : ''}${view.remembered ? ' · columns as last time under these headers' : ''}`}
            >
              <Button onClick={() => chooser.current?.click()}>Other file…</Button>
              <Button
                pressed={view.hasHeader}
                onClick={() => void setColumns({ ...view, hasHeader: !view.hasHeader })}
              >
                First row is a header
              </Button>
            </PageHead>
            <IntakeTable intake={view} onColumns={(columns) => void setColumns(columns)} />
          </section>
          <IntakePanel
            intake={view}
            problem={problem}
            busy={isRunning}
            onColumns={(columns) => void setColumns(columns)}
            onKeep={() => void keep()}
            onLeave={() => void leave()}
            onFilled={() => void refresh(['intake', 'intakeRows'])}
          />
        </div>
      ) : (
        <div className="flex h-full flex-col">
          <PageHead
            title="Intake"
            note="a list from a spreadsheet becomes campaigns, ad groups, keywords, negatives and ads"
          />
          <div className="grid flex-1 place-items-center p-6">
            {busy ? (
              <div className="w-80 space-y-3 text-center" role="status">
                <p>{uploading ? 'Sending the list…' : `${whole(job?.done ?? 0)} rows read…`}</p>
                <Progress label="Reading the list" done={job?.done ?? 0} total={job?.total ?? null} />
                {isRunning && <Button onClick={() => void cancel()}>Cancel</Button>}
              </div>
            ) : view?.state === 'kept' && chosen !== null ? (
              <div className="max-w-md space-y-4 text-center">
                <h2 className="text-[20px]">{job?.message ?? 'Brought in'}</h2>
                <p className="text-ink-2">It is one step: undo takes all of it back.</p>
                <div className="flex justify-center gap-2">
                  <Button
                    tone="ember"
                    onClick={() =>
                      go('plan/structure', { step: view.stepId ?? null, campaign: null, adGroup: null })
                    }
                  >
                    Show what came in
                  </Button>
                  <Button onClick={() => setChosen(null)}>Bring in another list</Button>
                </div>
              </div>
            ) : (
              <IntakeWelcome
                over={over}
                problem={problem ?? view?.problem ?? null}
                last={open.data?.last ?? null}
                onChoose={() => chooser.current?.click()}
              />
            )}
          </div>
        </div>
      )}
    </div>
  );
}
