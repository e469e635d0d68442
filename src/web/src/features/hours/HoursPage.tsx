import { useRef, useState } from 'react';
import type { Schemas } from '../../api/client';
import { useCommand } from '../../api/hooks';
import { useScope } from '../../app/scope';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { count, percent, shortDay } from '../../ui/format';
import { Empty, PageHead } from '../../ui/Panel';
import { CalendarDialog } from './CalendarDialog';
import { AnsweringDialog, HoursCampaigns } from './HoursCampaigns';
import { HoursSide } from './HoursSide';
import { useHours } from './useHours';
import { cellOf, days, spansOf, timesOf, type Block } from './weekSelection';
import { WeekGrid, WeekLegend, type Behind } from './WeekGrid';

const measures: readonly { value: Behind; label: string }[] = [
  { value: 'cost', label: 'Behind: cost' },
  { value: 'clicks', label: 'Behind: clicks' },
  { value: 'impressions', label: 'Behind: impressions' },
  { value: 'conversions', label: 'Behind: conversions' },
  { value: 'costPerConversion', label: 'Behind: cost per conversion' },
  { value: 'answered', label: 'Behind: calls answered' },
  { value: 'missed', label: 'Behind: calls in vain' },
];

const periods = [4, 8, 13, 26].map((weeks) => ({ value: String(weeks), label: `Last ${weeks} weeks` }));

type Change = Schemas['CommandChangeModifiersCommand'];

/** When campaigns show in the week, at which bids, and what that brought. */
export function HoursPage() {
  const { campaignId } = useScope();
  const [ticked, setTicked] = useState<{ scope: number | null; campaigns: number[] } | null>(null);
  const [weeks, setWeeks] = useState(8);
  const [behind, setBehind] = useState<Behind>('cost');
  const [block, setBlock] = useState<Block>({ from: cellOf(0, 9), to: cellOf(0, 9) });
  const [exact, setExact] = useState<{ from: number; to: number } | null>(null);
  const [typed, setTyped] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const [open, setOpen] = useState<'answering' | 'calendar' | null>(null);
  const modifier = useRef<HTMLInputElement>(null);
  const sending = useRef<Promise<unknown>>(Promise.resolve());
  const chosen =
    ticked && ticked.scope === campaignId ? ticked.campaigns : campaignId === null ? [] : [campaignId];
  const hours = useHours(chosen, weeks);
  const run = useCommand({ onProblem: (told) => setProblem(told.message) });
  if (hours.isError)
    return (
      <p role="alert" className="p-4 text-brick">
        {hours.error.message}
      </p>
    );
  if (!hours.data) return null;
  const { data } = hours;
  if (data.campaigns.length === 0)
    return (
      <Empty title="No campaigns yet">
        When campaigns show in the week, and at which bids, is set here. Bring some in, or add one in
        Structure.
      </Empty>
    );
  const first = data.campaigns.find((campaign) => campaign.id === data.chosen[0]);
  const spans = spansOf(block, exact ?? undefined);
  // One after the other, however quickly they come: each is on top of what the campaigns have when it arrives.
  const send = (change: Pick<Change, 'week' | 'days'>) => {
    setProblem(null);
    const command = {
      type: 'changeModifiers' as const,
      items: data.chosen.map((id) => ({ kind: 'campaign' as const, id })),
      values: {},
      targets: [],
      seen: [],
      ...change,
    };
    sending.current = sending.current
      .then(() => run.mutateAsync(command))
      .then(
        () => setTyped(''),
        () => undefined,
      );
  };
  const set = (edit: { shows: boolean | null; modifier: string | null }) =>
    send({ week: spans.map((span) => ({ ...span, ...edit })), days: [] });
  const current = data.week[block.to.day * 24 + block.to.hour];
  const choose = (next: Block) => {
    setBlock(next);
    setExact(null);
    setTyped('');
    setProblem(null);
  };
  return (
    <div className="flex h-full min-h-0 flex-col">
      <PageHead
        title="Hours"
        note={
          first && (
            <>
              {first.name}
              {data.chosen.length > 1 && ` and ${data.chosen.length - 1} more`} · {count(first.hours)} h,{' '}
              {percent(first.share, 1)} of the week
            </>
          )
        }
      >
        <Choice
          label="Weeks"
          value={String(weeks)}
          options={periods}
          onChange={(next) => setWeeks(Number(next))}
        />
        <Choice label="Behind the hours" value={behind} options={measures} onChange={setBehind} />
        <Button onClick={() => setOpen('calendar')}>Calendar file…</Button>
        <Button onClick={() => setOpen('answering')}>Answering hours…</Button>
      </PageHead>
      <div className="grid min-h-0 flex-1 max-[1099px]:block max-[1099px]:overflow-auto min-[1100px]:grid-cols-[minmax(0,1fr)_316px]">
        <div className="min-h-0 space-y-3 overflow-auto bg-sheet p-3">
          <div>
            <WeekGrid
              week={data.week}
              behind={behind}
              block={block}
              onBlock={choose}
              onSwitch={() =>
                set({ shows: !current?.quarters.every((quarter) => quarter.shows), modifier: null })
              }
              onModifier={(sign) => {
                setTyped(sign);
                modifier.current?.focus();
              }}
              onCopyDown={() => {
                const [like, day] = [days[block.to.day], days[block.to.day + 1]];
                if (!like || !day) return;
                send({ week: [], days: [{ day, like }] });
              }}
            />
            <WeekLegend
              answering={data.answeringHours !== null}
              missed={data.week.some((hour) => hour.missed > 0)}
            />
          </div>
          <p className="text-ink-3">
            {data.first && data.last
              ? `Bars: ${shortDay(data.first)} to ${shortDay(data.last)}, by the clock on the wall. `
              : 'The network has reported nothing yet. '}
            {data.answeringHours
              ? `Calls are taken ${data.answeringHours}.`
              : 'Nobody said yet when calls are taken.'}
          </p>
          {data.more && (
            <p className="text-ink-3">There are more campaigns than are listed: choose one at the top.</p>
          )}
          <HoursCampaigns
            hours={data}
            chosen={data.chosen}
            onChoose={(campaigns) => {
              // Some campaign is always looked at.
              if (campaigns.length > 0) setTicked({ scope: campaignId, campaigns });
            }}
          />
        </div>
        <HoursSide
          hours={data}
          weeks={weeks}
          spans={spans}
          times={exact ?? timesOf(block)}
          onTimes={setExact}
          onSet={set}
          modifier={modifier}
          typed={typed}
          onTyped={setTyped}
          problem={problem}
        />
      </div>
      {open === 'answering' && <AnsweringDialog hours={data} onClose={() => setOpen(null)} />}
      {open === 'calendar' && <CalendarDialog hours={data} onClose={() => setOpen(null)} />}
    </div>
  );
}
