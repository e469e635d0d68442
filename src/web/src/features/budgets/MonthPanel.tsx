import { useState, type FormEvent } from 'react';
import { useAccount } from '../../api/account';
import { useCommand } from '../../api/hooks';
import { TextField } from '../../ui/Field';
import { money, shortDay } from '../../ui/format';
import { goHome } from '../../ui/home';
import { Panel } from '../../ui/Panel';
import type { Month } from './useBudgets';

const [width, height] = [300, 96];

/** The month: what it cost, what it is likely to cost, and what it may cost. */
export function MonthPanel({ month }: { month: Month }) {
  return (
    <Panel title="The month">
      <MonthChart month={month} />
      {month.rest && <p className="mt-1 text-ink-2">{month.rest}</p>}
      <MonthBudget key={month.version} month={month} />
    </Panel>
  );
}

function MonthBudget({ month }: { month: Month }) {
  const kept = month.budget === null ? '' : String(month.budget);
  const [text, setText] = useState(kept);
  const [problem, setProblem] = useState<string | null>(null);
  const run = useCommand({ onProblem: (told) => setProblem(told.message) });
  const keep = () => {
    if (run.isPending || text.trim() === kept) return;
    run.mutate({
      type: 'setFields',
      items: [{ kind: 'account', id: month.itemId }],
      values: { monthBudget: text },
      seen: [{ kind: 'account', id: month.itemId, version: month.version }],
    });
  };
  const submit = (event: FormEvent) => {
    event.preventDefault();
    // Leaving the field keeps it.
    goHome();
  };
  return (
    <form onSubmit={submit} className="mt-2">
      <TextField
        label="To spend in a month"
        className="w-[150px]"
        inputMode="decimal"
        value={text}
        placeholder="not said"
        problem={problem}
        onChange={(event) => {
          setProblem(null);
          setText(event.target.value);
        }}
        onBlur={keep}
      />
    </form>
  );
}

function MonthChart({ month }: { month: Month }) {
  const account = useAccount();
  const days = [...month.past, ...month.toCome];
  const last = month.toCome.at(-1) ?? month.past.at(-1);
  if (!last || days.length < 2) return null;
  const first = days[0] ?? last;
  const ordinal = (day: string) => Number(day.slice(8));
  const top = Math.max(month.budget ?? 0, last.sum.high) * 1.06;
  const x = (day: string) => ((ordinal(day) - 1) / Math.max(1, ordinal(last.day) - 1)) * width;
  const y = (amount: number) => height - (top > 0 ? amount / top : 0) * height;
  const line = (points: readonly { day: string; at: number }[]) =>
    points.map((point, at) => `${at === 0 ? 'M' : 'L'}${x(point.day)},${y(point.at)}`).join('');
  const now = month.past.at(-1) ?? first;
  const ahead = [now, ...month.toCome];
  return (
    <svg
      viewBox={`-2 -12 ${width + 4} ${height + 28}`}
      className="block w-full"
      role="img"
      aria-label={month.says}
    >
      <line x1={0} x2={width} y1={height} y2={height} className="stroke-line-strong" />
      {month.budget !== null && (
        <>
          <line
            x1={0}
            x2={width}
            y1={y(month.budget)}
            y2={y(month.budget)}
            strokeDasharray="2 3"
            className="stroke-ink"
          />
          <text x={2} y={y(month.budget) - 3} className="fill-ink-2 text-[10.5px]">
            {money(month.budget, account)} to spend
          </text>
        </>
      )}
      {month.toCome.length > 0 && (
        <>
          <path
            d={`${line(ahead.map((each) => ({ day: each.day, at: each.sum.high })))}${[...ahead]
              .reverse()
              .map((each) => `L${x(each.day)},${y(each.sum.low)}`)
              .join('')}Z`}
            className="fill-plum-wash"
          />
          <path
            d={line(ahead.map((each) => ({ day: each.day, at: each.sum.likely })))}
            strokeDasharray="4 3"
            className="fill-none stroke-plum"
          />
        </>
      )}
      <path
        d={line(month.past.map((each) => ({ day: each.day, at: each.sum.likely })))}
        strokeWidth={2}
        className="fill-none stroke-plum"
      />
      <text
        x={Math.min(width - 34, Math.max(0, x(now.day) - 14))}
        y={height + 13}
        className="fill-ink-3 text-[10.5px]"
      >
        {shortDay(now.day)}
      </text>
    </svg>
  );
}
