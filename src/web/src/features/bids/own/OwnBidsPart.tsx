import { useState, type FormEvent } from 'react';
import { useCommand } from '../../../api/hooks';
import { Button } from '../../../ui/Button';
import { Choice } from '../../../ui/Choice';
import { TextField } from '../../../ui/Field';
import { plural } from '../../../ui/format';
import { goHome } from '../../../ui/home';
import { Empty } from '../../../ui/Panel';
import { useTicks } from '../../../ui/useTicks';
import { ChooseCampaign } from '../ChooseCampaign';
import { useKeywordBids, weekChoices, type KeywordBid, type KeywordBids } from '../useBids';
import { OwnBidsTable } from './OwnBidsTable';
import { ProposalDialog, type Goal } from './ProposalDialog';

const goals: { value: Goal; label: string }[] = [
  { value: 'firstPage', label: 'to the first page' },
  { value: 'top', label: 'to the top' },
  { value: 'starting', label: 'to a starting bid' },
];

const keyOf = (row: KeywordBid) => String(row.id);

/** What ad groups and keywords bid, changed for many at once. */
export function OwnBidsPart({
  campaignId,
  adGroupId,
}: {
  campaignId: number | null;
  adGroupId: number | null;
}) {
  const [weeks, setWeeks] = useState(8);
  const bids = useKeywordBids(campaignId, adGroupId, weeks);
  if (campaignId === null)
    return (
      <ChooseCampaign
        title="Whose bids?"
        says="Base bids of ad groups and own bids of keywords are changed campaign by campaign; Structure has them all in one sheet."
      />
    );
  if (bids.isError)
    return (
      <p role="alert" className="p-4 text-brick">
        {bids.error.message}
      </p>
    );
  if (!bids.data) return null;
  if (bids.data.keywords.length === 0)
    return (
      <Empty title="No keywords yet">
        What keywords bid, what a click costs and what it takes to reach the page stands here. Bring keywords
        in, or add them in Structure.
      </Empty>
    );
  return (
    <Bids
      campaignId={campaignId}
      bids={bids.data}
      weeks={
        <Choice
          label="Weeks"
          value={String(weeks)}
          options={weekChoices}
          onChange={(next) => setWeeks(Number(next))}
        />
      }
    />
  );
}

function Bids({
  campaignId,
  bids,
  weeks,
}: {
  campaignId: number;
  bids: KeywordBids;
  weeks: React.ReactNode;
}) {
  const ticks = useTicks({
    items: bids.keywords,
    keyOf,
    onEnter: (row) => document.getElementById(`own-${row.id}`)?.focus(),
  });
  const [by, setBy] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const [goal, setGoal] = useState<Goal>('firstPage');
  const [ceiling, setCeiling] = useState('');
  const [open, setOpen] = useState(false);
  const run = useCommand({ onProblem: (told) => setProblem(told.message) });
  const chosen = ticks.ticked;
  const change = (event: FormEvent) => {
    event.preventDefault();
    if (run.isPending || !by.trim() || chosen.length === 0) return;
    run.mutate(
      {
        type: 'setFields',
        items: chosen.map((row) => ({ kind: 'keyword' as const, id: row.id })),
        values: { maxCpc: by.trim() },
        seen: chosen.map((row) => ({ kind: 'keyword' as const, id: row.id, version: row.version })),
      },
      {
        onSuccess: () => {
          setBy('');
          goHome();
        },
      },
    );
  };
  return (
    <>
      <div className="flex flex-wrap items-end gap-x-4 gap-y-1 border-b border-line-soft bg-sheet px-3 py-1.5">
        <span className="min-w-[88px] self-center text-ink-2" aria-live="polite">
          {chosen.length === 0 ? 'None chosen' : `${plural(chosen.length, 'keyword')} chosen`}
        </span>
        <form className="flex items-end gap-1.5" onSubmit={change}>
          <TextField
            label="Raise, lower or set"
            className="w-[124px]"
            placeholder="+10%, −0.05, 1.20"
            value={by}
            problem={problem}
            onChange={(event) => {
              setProblem(null);
              setBy(event.target.value);
            }}
          />
          <Button type="submit" disabled={chosen.length === 0 || !by.trim()}>
            Change
          </Button>
        </form>
        <div className="flex items-end gap-1.5">
          <Choice label="Bring bids" value={goal} options={goals} onChange={(next) => setGoal(next)} />
          <TextField
            label="At most"
            className="w-[84px]"
            placeholder="no limit"
            value={ceiling}
            onChange={(event) => setCeiling(event.target.value)}
          />
          <Button disabled={chosen.length === 0} onClick={() => setOpen(true)}>
            Propose…
          </Button>
        </div>
        <span className="ml-auto">{weeks}</span>
      </div>
      {bids.says && (
        <p className="border-b border-line-soft bg-ochre-wash px-3 py-1">
          <span className="text-ochre">◆</span> {bids.says}
        </p>
      )}
      <div className="min-h-0 flex-1 overflow-auto bg-sheet">
        <OwnBidsTable rows={bids.keywords} ticks={ticks} />
        {bids.more && (
          <p className="px-3 py-2 text-ink-3">
            These are the dearest 500. There are more keywords: choose an ad group at the top, or change all
            in Structure.
          </p>
        )}
      </div>
      {open && (
        <ProposalDialog
          campaignId={campaignId}
          keywords={chosen.map((row) => row.id)}
          goal={goal}
          goalName={goals.find((each) => each.value === goal)?.label ?? ''}
          ceiling={ceiling}
          onClose={() => setOpen(false)}
        />
      )}
    </>
  );
}
