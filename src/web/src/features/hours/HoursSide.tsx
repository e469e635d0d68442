import { useEffect, useState, type FormEvent, type RefObject } from 'react';
import { useAccount } from '../../api/account';
import type { Schemas } from '../../api/client';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { TextField } from '../../ui/Field';
import { count, fullDay, money, whole } from '../../ui/format';
import { goHome } from '../../ui/home';
import { Panel } from '../../ui/Panel';
import { usePartOfWeek, type Hours, type WeekSpan } from './useHours';
import { clock } from './weekSelection';

interface Props {
  hours: Hours;
  weeks: number;
  spans: readonly WeekSpan[];
  times: { from: number; to: number };
  onTimes: (times: { from: number; to: number }) => void;
  onSet: (edit: { shows: boolean | null; modifier: string | null }) => void;
  modifier: RefObject<HTMLInputElement | null>;
  typed: string;
  onTyped: (text: string) => void;
  problem: string | null;
}

const quarter = 15;
const quarters = Array.from({ length: 97 }, (_, at) => at * quarter);

/** What is known of the chosen hours, and what is done with them. */
export function HoursSide({
  hours,
  weeks,
  spans,
  times,
  onTimes,
  onSet,
  modifier,
  typed,
  onTyped,
  problem,
}: Props) {
  const account = useAccount();
  const part = usePartOfWeek(hours.chosen, weeks, spans, useSettled(typed));
  const known = part.data;
  const take = (proposed: string) => onSet({ shows: null, modifier: proposed });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (typed.trim()) onSet({ shows: null, modifier: typed });
    goHome();
  };
  return (
    <aside
      className="flex min-h-0 flex-col gap-2.5 overflow-auto border-l border-line bg-paper p-3"
      aria-label="Chosen hours"
    >
      <h2 className="text-[15px]">{known?.name ?? '…'}</h2>
      <Panel>
        <div className="grid grid-cols-[84px_minmax(0,1fr)] items-center gap-x-2 gap-y-1.5">
          <span>From, to</span>
          <span className="flex items-center gap-1">
            <Choice
              label="From"
              value={String(times.from)}
              options={quarters
                .filter((minute) => minute < times.to)
                .map((minute) => ({ value: String(minute), label: clock(minute) }))}
              onChange={(minute) => onTimes({ ...times, from: Number(minute) })}
            />
            –
            <Choice
              label="To"
              value={String(times.to)}
              options={quarters
                .filter((minute) => minute > times.from)
                .map((minute) => ({ value: String(minute), label: clock(minute) }))}
              onChange={(minute) => onTimes({ ...times, to: Number(minute) })}
            />
          </span>
          <span id="hours-shows">Shows</span>
          <span role="group" aria-labelledby="hours-shows" className="flex gap-1">
            <Button pressed={known?.shows === 'all'} onClick={() => onSet({ shows: true, modifier: null })}>
              yes
            </Button>
            <Button pressed={known?.shows === 'none'} onClick={() => onSet({ shows: false, modifier: null })}>
              no
            </Button>
            {known?.shows === 'some' && <span className="self-center text-ink-3">in part</span>}
          </span>
          <span>Modifier</span>
          <form onSubmit={submit} className="flex items-center gap-1.5">
            <TextField
              ref={modifier}
              label="Modifier"
              hideLabel
              className="w-[92px]"
              value={typed}
              placeholder={known?.modifier ?? '±0%'}
              onChange={(event) => onTyped(event.target.value)}
              onKeyDown={(event) => {
                if (event.key !== 'Escape') return;
                onTyped('');
                goHome();
              }}
            />
            <Button type="submit">Set</Button>
          </form>
        </div>
        {known?.shows === 'none' && (
          <p className="mt-1 text-[12.5px] text-ink-3">
            Ads do not show in these hours: let them show first, then set a modifier.
          </p>
        )}
        {problem && (
          <p role="alert" className="mt-1 text-[12.5px] text-brick">
            {problem}
          </p>
        )}
        {part.isError && !problem && <p className="mt-1 text-[12.5px] text-brick">{part.error.message}</p>}
        {known?.lowest != null && known.lowestAfter != null && (
          <p className="mt-2 border-t border-line-soft pt-1.5">
            Max CPC {between(known.lowest, known.highest, account)}{' '}
            {known.lowestAfter === known.lowest ? 'stays' : 'becomes'}{' '}
            <strong>{between(known.lowestAfter, known.highestAfter, account)}</strong>
          </p>
        )}
      </Panel>
      {known?.evidence && <Evidence row={known.evidence} onTake={take} weeks={weeks} />}
      {hours.unanswered && hours.unanswered.hours > 0 && (
        <Panel title="Nobody takes calls" className="!bg-ochre-wash">
          <p>
            Shows {count(hours.unanswered.hours)} h a week outside the answering hours:{' '}
            <strong>{money(hours.unanswered.cost, account)}</strong> in {weeks} weeks.
          </p>
        </Panel>
      )}
      {hours.oddDays.length > 0 && (
        <Panel title="Two nights a year" className="!bg-ochre-wash">
          <p>
            {hours.oddDays.map((odd) => `${fullDay(odd.day)} has ${odd.hours} hours`).join(', ')}. Hours keep
            to the clock on the wall: one that is skipped never comes, one that comes twice counts twice.
          </p>
        </Panel>
      )}
    </aside>
  );
}

function Evidence({
  row,
  onTake,
  weeks,
}: {
  row: Schemas['SegmentRow'];
  onTake: (modifier: string) => void;
  weeks: number;
}) {
  const account = useAccount();
  return (
    <>
      <Panel title={row.proposed ? `Proposed: ${row.proposed}` : `Proposed: ${row.says}`}>
        <div className="space-y-1 text-[12.5px] text-ink-2">
          {row.why.map((sentence) => (
            <p key={sentence}>{sentence}</p>
          ))}
          {row.trade && <p>{row.trade}</p>}
        </div>
        <div className="mt-2 flex gap-1.5 empty:hidden">
          {[row.proposed, ...row.cuts]
            .filter((each) => each !== null)
            .map((each) => (
              <Take key={each} modifier={each} onTake={onTake} />
            ))}
        </div>
      </Panel>
      <Panel title={`Behind it, ${weeks} weeks`}>
        <dl className="grid grid-cols-[1fr_auto] gap-y-0.5">
          <dt>Impressions</dt>
          <dd className="text-right">{whole(row.figures.impressions)}</dd>
          <dt>Clicks</dt>
          <dd className="text-right">{whole(row.figures.clicks)}</dd>
          <dt>Cost</dt>
          <dd className="text-right">{money(row.figures.cost, account)}</dd>
          <dt>Conversions</dt>
          <dd className="text-right">{count(row.figures.conversions)}</dd>
          <dt>Cost per conversion</dt>
          <dd className="text-right">{money(row.figures.costPerConversion, account)}</dd>
        </dl>
      </Panel>
    </>
  );
}

function Take({ modifier, onTake }: { modifier: string; onTake: (modifier: string) => void }) {
  return <Button onClick={() => onTake(modifier)}>Take {modifier}</Button>;
}

function between(low: number, high: number | null, account: Parameters<typeof money>[1]): string {
  return high === null || high === low
    ? money(low, account)
    : `${money(low, account)} – ${money(high, account)}`;
}

/** What was typed, when typing rests: each letter asks nothing. */
function useSettled(text: string): string {
  const [settled, setSettled] = useState(text);
  useEffect(() => {
    const timer = window.setTimeout(() => setSettled(text), 250);
    return () => window.clearTimeout(timer);
  }, [text]);
  return settled;
}
