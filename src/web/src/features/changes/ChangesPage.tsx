import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { answer, api, type ItemKind, type Job, type Schemas } from '../../api/client';
import { tell, useJob, useRefresh, useStatus } from '../../api/hooks';
import { useAccount } from '../../api/account';
import { moment, plural, whole } from '../../ui/format';
import { useKinds } from '../../api/kinds';
import { KindNoun } from '../../ui/KindNoun';
import { Button } from '../../ui/Button';
import { ChangeLines } from '../../ui/ChangeLines';
import { ChangeFlag, WeightMark } from '../../ui/Marks';
import { Empty, PageHead, Panel } from '../../ui/Panel';
import { Progress } from '../../ui/Progress';
import { LiveSection, ReadLiveButton } from './LiveSection';

/** What differs from the live copy; publishing; what the network refused. */
export function ChangesPage() {
  const account = useAccount();
  const status = useStatus();
  const refresh = useRefresh();
  const [jobId, setJobId] = useState<number | null>(null);
  const [ended, setEnded] = useState<Job | null>(null);
  const pending = useQuery({
    queryKey: [account.id, 'pending'],
    queryFn: () =>
      answer(api.GET('/api/accounts/{accountId}/pending', { params: { path: { accountId: account.id } } })),
  });
  const publishes = useQuery({
    queryKey: [account.id, 'publishes'],
    queryFn: () =>
      answer(api.GET('/api/accounts/{accountId}/publishes', { params: { path: { accountId: account.id } } })),
  });
  // A page that is opened while a publish runs takes it up.
  const { job, isRunning, cancel } = useJob(jobId ?? status.data?.runningJobId ?? null, (finished) => {
    if (finished.kind === 'publish') setEnded(finished);
    void refresh();
    void refresh(['publishes', 'refused']);
  });
  const publishing = isRunning && job?.kind === 'publish';
  const publish = async () => {
    setEnded(null);
    try {
      setJobId(
        (
          await answer(
            api.POST('/api/accounts/{accountId}/publishes', { params: { path: { accountId: account.id } } }),
          )
        ).id,
      );
    } catch (error) {
      tell(error);
    }
  };
  const total = pending.data?.counts.reduce((sum, each) => sum + each.count, 0) ?? 0;
  const blockers = status.data?.counting ? 0 : (status.data?.blockers ?? 0);
  const last = publishes.data?.[0];
  const interrupted = last?.state === 'interrupted';
  return (
    <div className="grid h-full grid-cols-1 min-[900px]:grid-cols-[minmax(0,1fr)_320px]">
      <section aria-label="Changes" className="flex min-h-0 min-w-0 flex-col bg-sheet">
        <PageHead title="Changes" note={pending.data && `${plural(total, 'item')} differ from the live copy`}>
          <ReadLiveButton />
        </PageHead>
        <div className="min-h-0 flex-1 overflow-auto px-3">
          <LiveSection />
          {pending.isError && (
            <p role="alert" className="py-3 text-brick">
              {pending.error.message}
            </p>
          )}
          {pending.data && total === 0 && (
            <Empty title="Nothing to publish">The working copy and the live copy are the same.</Empty>
          )}
          {pending.data && total > 0 && (
            <>
              <ChangeLines lines={pending.data.lines} showPlace />
              {total > pending.data.lines.length && (
                <p className="py-2 text-ink-3">and {whole(total - pending.data.lines.length)} more</p>
              )}
            </>
          )}
        </div>
      </section>
      <aside
        aria-label="Publish"
        className="flex min-h-0 flex-col gap-3 overflow-auto border-l border-line-strong p-3"
      >
        <h2 className="text-[15px]">Publish to {account.networkName}</h2>
        <Panel>
          <PendingCounts counts={pending.data?.counts ?? []} />
          {blockers > 0 && (
            <p className="mt-2">
              <Link to={`/${account.id}/ship/checks`} className="underline">
                <WeightMark weight="blocker">
                  {blockers === 1 ? '1 blocker stops publishing' : `${blockers} blockers stop publishing`}
                </WeightMark>
              </Link>
            </p>
          )}
          {publishing ? (
            <div className="mt-3 space-y-2" role="status">
              <p>
                {whole(job?.done)} of {whole(job?.total)} sent…
              </p>
              <Progress label="Publishing" done={job?.done ?? 0} total={job?.total ?? null} />
              <Button onClick={() => void cancel()}>Stop</Button>
            </div>
          ) : (
            <Button
              tone="ember"
              className="mt-3 w-full py-1.5"
              disabled={(total === 0 && !interrupted) || blockers > 0}
              onClick={() => void publish()}
            >
              {interrupted ? 'Go on publishing' : `Publish ${plural(total, 'change')}`}
            </Button>
          )}
        </Panel>
        {ended && ended.state === 'failed' && (
          <p role="alert" className="text-brick">
            {ended.message} What the network had taken by then is marked as published; the rest waits here.
            Nothing is sent twice.
          </p>
        )}
        {interrupted && !ended && last && (
          <p className="text-brick">The last publish stopped: {last.problem} It goes on where it stopped.</p>
        )}
        {last && !publishing && <PublishOutcome publish={last} fresh={ended !== null} />}
        {publishes.data && publishes.data.length > 1 && (
          <Panel title="Before">
            <ul className="space-y-1">
              {publishes.data.slice(1, 12).map((each) => (
                <li key={each.id} className="flex justify-between gap-2">
                  <span className="text-ink-2">{moment(each.madeAt)}</span>
                  <span>
                    {whole(each.accepted)} accepted{each.refused > 0 && `, ${whole(each.refused)} refused`}
                  </span>
                </li>
              ))}
            </ul>
          </Panel>
        )}
      </aside>
    </div>
  );
}

function PendingCounts({ counts }: { counts: readonly Schemas['PendingCount'][] }) {
  const of = (kind: ItemKind, change: Schemas['RowChange']) =>
    counts.find((each) => each.kind === kind && each.change === change)?.count ?? 0;
  const kinds = useKinds();
  const shown = kinds.all.map(({ kind }) => kind).filter((kind) => counts.some((each) => each.kind === kind));
  if (shown.length === 0) return <p className="text-ink-2">Nothing differs.</p>;
  return (
    <table className="w-full">
      <thead>
        <tr className="text-[11.5px] text-ink-3">
          <th aria-label="Kind" />
          {(['new', 'edited', 'removed'] as const).map((change) => (
            <th key={change} scope="col" className="w-16 text-right font-semibold">
              <ChangeFlag change={change} /> {change}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {shown.map((kind) => (
          <tr key={kind}>
            <th scope="row" className="text-left font-normal">
              {kinds.title(kind)}
            </th>
            {(['new', 'edited', 'removed'] as const).map((change) => (
              <td key={change} className="text-right">
                {whole(of(kind, change))}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** How the newest publish went, and what was refused with the network's reasons. */
function PublishOutcome({ publish, fresh }: { publish: Schemas['PublishSummary']; fresh: boolean }) {
  const account = useAccount();
  const refused = useQuery({
    queryKey: [account.id, 'refused', publish.id],
    enabled: publish.refused > 0,
    queryFn: () =>
      answer(
        api.GET('/api/accounts/{accountId}/publishes/{publishId}/refused', {
          params: { path: { accountId: account.id, publishId: publish.id } },
        }),
      ),
  });
  return (
    <Panel
      title={fresh && publish.state === 'done' ? 'Published' : `Last publish, ${moment(publish.madeAt)}`}
    >
      <p role={fresh ? 'status' : undefined}>
        <b className="font-semibold">{whole(publish.accepted)}</b> of {whole(publish.total)} accepted
        {publish.refused > 0 && <span className="text-brick">, {whole(publish.refused)} refused</span>}. Ads
        and keywords are reviewed, mostly within a working day.
      </p>
      {refused.data && (
        <ul className="mt-2 space-y-1">
          {refused.data.map((item) => (
            <li key={`${item.kind}${item.id}`}>
              <span className="text-ink-3">
                <KindNoun kind={item.kind} />
              </span>{' '}
              <b className="font-semibold">{item.name}</b>
              <div className="text-brick">{item.reason}</div>
            </li>
          ))}
        </ul>
      )}
    </Panel>
  );
}
