import { useEffect, useRef } from 'react';
import { Link } from 'react-router';
import { type Schemas } from '../../api/client';
import { useStatus } from '../../api/hooks';
import { useAccount } from '../../api/account';
import { moment, plural, whole } from '../../ui/format';
import { Button } from '../../ui/Button';
import { WeightMark } from '../../ui/Marks';
import { Panel } from '../../ui/Panel';
import { Progress } from '../../ui/Progress';
import { Looks } from './Looks';
import { PendingCounts } from './PendingCounts';
import { PublishOutcome } from './PublishOutcome';
import { usePublishing } from './usePublishing';

const shownBefore = 12;

/** Publishing: what would go out, how it goes, what was interrupted, and how it went before. */
export function PublishPanel({
  counts,
  publishing,
  goesOut,
  isPart,
  onPublish,
}: {
  counts: readonly Schemas['PendingCount'][];
  publishing: ReturnType<typeof usePublishing>;
  /** How many changes would be sent. */
  goesOut: number;
  /** Only what is ticked would be. */
  isPart: boolean;
  onPublish: () => void;
}) {
  const account = useAccount();
  const status = useStatus();
  const { publishes, job, beginning, ended, stop, goOn, giveUp } = publishing;
  const heading = useRef<HTMLHeadingElement>(null);
  const acted = useRef(false);
  // What was pressed gives way to what comes of it: the keyboard stays beside it.
  useEffect(() => {
    if (acted.current && document.activeElement === document.body) heading.current?.focus();
  });
  const act = (what: () => Promise<unknown>) => {
    acted.current = true;
    void what();
  };
  const blockers = status.data?.counting ? 0 : (status.data?.blockers ?? 0);
  const last = publishes[0];
  const interrupted = !job && last?.state === 'interrupted' ? last : null;
  return (
    <aside
      data-side
      aria-label="Publish"
      className="flex min-h-0 flex-col gap-3 overflow-auto border-l border-line-strong p-3"
    >
      <h2 ref={heading} tabIndex={-1} className="text-[15px]">
        Publish to {account.networkName}
      </h2>
      {interrupted && (
        <Interrupted
          publish={interrupted}
          busy={beginning}
          onGoOn={() => act(() => goOn(interrupted.id))}
          onGiveUp={() => act(() => giveUp(interrupted.id))}
        />
      )}
      <Panel>
        <PendingCounts counts={counts} />
        {blockers > 0 && (
          <p className="mt-2">
            <Link to={`/${account.id}/ship/checks`} className="underline">
              <WeightMark weight="blocker">
                {blockers === 1 ? '1 blocker stops publishing' : `${blockers} blockers stop publishing`}
              </WeightMark>
            </Link>
          </p>
        )}
        {!account.mayPublish && (
          <p className="mt-2 text-ink-2">A publisher or an owner of this account publishes.</p>
        )}
        {isPart && !job && (
          <p className="mt-2 text-ink-2">
            Only what is ticked, with what it stands in where that is new too.
          </p>
        )}
        {job ? (
          <div className="mt-3 space-y-2" role="status">
            <p>
              {job.state === 'waiting'
                ? 'Waiting for its turn…'
                : `${whole(job.done)} of ${whole(job.total)} sent…`}
            </p>
            <Progress label="Publishing" done={job.done} total={job.total ?? null} />
            <Button onClick={() => act(stop)}>Stop</Button>
          </div>
        ) : (
          <Button
            tone="ember"
            className="mt-3 w-full py-1.5"
            disabled={goesOut === 0 || (blockers > 0 && !isPart) || beginning || !account.mayPublish}
            onClick={() => {
              acted.current = true;
              onPublish();
            }}
          >
            {beginning
              ? 'Reading the live copy…'
              : `Publish ${plural(goesOut, 'change')}${interrupted ? ' as they stand now' : ''}`}
          </Button>
        )}
      </Panel>
      {last && !job && !interrupted && <PublishOutcome publish={last} fresh={ended !== null} />}
      <Looks />
      {publishes.length > 1 && (
        <Panel title="Before">
          <ul className="space-y-1">
            {publishes.slice(1, shownBefore).map((each) => (
              <li key={each.id} className="flex justify-between gap-2">
                <span className="text-ink-2">{moment(each.madeAt)}</span>
                <span>
                  {whole(each.accepted)} accepted{each.refused > 0 && `, ${whole(each.refused)} refused`}
                  {each.state === 'abandoned' && ', the rest given up'}
                </span>
              </li>
            ))}
          </ul>
        </Panel>
      )}
    </aside>
  );
}

/** A publish that stopped before its end: why, and the ways on from there. */
function Interrupted({
  publish,
  busy,
  onGoOn,
  onGiveUp,
}: {
  publish: Schemas['PublishSummary'];
  busy: boolean;
  onGoOn: () => void;
  onGiveUp: () => void;
}) {
  return (
    <section
      aria-label="Interrupted publish"
      role="alert"
      className="rounded-lg border border-ember bg-sheet p-2.5"
    >
      <h3 className="font-body text-[13px] font-semibold text-ember">The publish was interrupted</h3>
      <p className="mt-1">{publish.problem}</p>
      <p className="mt-1 text-ink-2">
        {whole(publish.accepted)} of {whole(publish.total)} are on the network; {whole(publish.left)} are
        left. What the network may have taken without answering is asked for first, so nothing goes out twice.
      </p>
      <p className="mt-1 text-ink-2">
        Sending the rest leaves out what was edited or taken back since, and names it.
      </p>
      <div className="mt-2 flex gap-2">
        <Button tone="plum" disabled={busy} onClick={onGoOn}>
          Send the rest
        </Button>
        <Button disabled={busy} onClick={onGiveUp}>
          Give up the rest
        </Button>
      </div>
    </section>
  );
}
