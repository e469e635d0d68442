import clsx from 'clsx';
import { useState, type FormEvent } from 'react';
import { useAccount } from '../../api/account';
import { useCommand } from '../../api/hooks';
import { Button } from '../../ui/Button';
import { CheckField, TextField } from '../../ui/Field';
import { money, whole } from '../../ui/format';
import { Panel } from '../../ui/Panel';
import type { Calls } from './useCalls';

interface Props {
  calls: Calls;
  onceEach: boolean;
  onOnceEach: (on: boolean) => void;
}

/** The calls in figures, and from which length on they count. */
export function CallSide({ calls, onceEach, onOnceEach }: Props) {
  const account = useAccount();
  const { now, before } = calls;
  const lines = [
    ['Rang', whole(now.rang), whole(before.rang)],
    ['Answered', whole(now.answered), whole(before.answered)],
    ['Counted', whole(now.counted), whole(before.counted)],
    ['Missed', whole(now.missed), whole(before.missed)],
    ['Engaged', whole(now.engaged), whole(before.engaged)],
    ['Cost per answered call', money(now.costPerAnswered, account), money(before.costPerAnswered, account)],
    ['Cost per counted call', money(now.costPerCounted, account), money(before.costPerCounted, account)],
  ] as const;
  return (
    <aside
      className="flex min-h-0 flex-col gap-2.5 overflow-auto border-r border-line bg-paper p-3"
      aria-label="Calls in figures"
    >
      <table className="w-full border-collapse">
        <thead>
          <tr className="h-[27px] border-b border-line-strong bg-sheet text-[12px] text-ink-3">
            <td />
            <th scope="col" className="px-2 text-right font-semibold">
              now
            </th>
            <th scope="col" className="px-2 text-right font-semibold">
              before
            </th>
          </tr>
        </thead>
        <tbody>
          {lines.map(([name, here, there]) => (
            <tr
              key={name}
              className="h-[27px] border-b border-line-soft"
              title={name.startsWith('Cost') ? 'The clicks that led to a call, each once.' : undefined}
            >
              <th
                scope="row"
                className={clsx('px-2 text-left font-normal', name === 'Missed' && 'text-brick')}
              >
                {name}
              </th>
              <td className={clsx('px-2 text-right font-semibold', name === 'Missed' && 'text-brick')}>
                {here}
              </td>
              <td className="px-2 text-right text-ink-3">{there}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <CheckField label="Count a person once" checked={onceEach} onChange={onOnceEach} />
      <CountsFrom calls={calls} />
    </aside>
  );
}

/** From how many seconds on a call is a conversion. */
function CountsFrom({ calls }: { calls: Calls }) {
  const [typed, setTyped] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const run = useCommand({ onProblem: (told) => setProblem(told.message) });
  const text = typed ?? (calls.least === null ? '' : `${calls.least} s`);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (typed === null || run.isPending) return;
    run.mutate(
      {
        type: 'setFields',
        items: calls.actions.map(({ id }) => ({ kind: 'conversionAction' as const, id })),
        values: { leastSeconds: typed },
        seen: calls.actions.map((each) => ({ kind: 'conversionAction' as const, ...each })),
      },
      { onSuccess: () => setTyped(null) },
    );
  };
  const most = Math.max(1, ...calls.lengths.map((length) => length.calls));
  if (calls.actions.length === 0)
    return (
      <Panel title="A call counts from">
        <p className="text-ink-2">
          No action counts calls. Add one under Conversions, such as “Call from an ad”.
        </p>
      </Panel>
    );
  return (
    <Panel title="A call counts from">
      <form onSubmit={submit} className="flex items-end gap-2">
        <TextField
          label="Seconds"
          value={text}
          problem={problem}
          className="w-24"
          hint={calls.least === null && typed === null ? 'the actions differ' : undefined}
          onChange={(event) => {
            setProblem(null);
            setTyped(event.target.value);
          }}
        />
        <Button type="submit" tone="plum" disabled={typed === null}>
          Count from there
        </Button>
      </form>
      <svg
        viewBox={`0 0 ${calls.lengths.length * 10} 62`}
        className="mt-2 block w-full"
        role="img"
        aria-label="Length of answered calls"
      >
        {calls.lengths.map((length, at) => (
          <rect
            key={length.from}
            x={at * 10}
            width={8.5}
            y={60 - (length.calls / most) * 58}
            height={(length.calls / most) * 58}
            className={length.counts ? 'fill-plum' : 'fill-plum/35'}
          >
            <title>{`${length.calls} from ${length.from} s`}</title>
          </rect>
        ))}
        <path d={`M0 60.5h${calls.lengths.length * 10}`} className="stroke-line-strong" />
      </svg>
      <div className="flex justify-between text-[11.5px] text-ink-3">
        <span>0 s</span>
        <span>3 min</span>
        <span>6 min and more</span>
      </div>
      <p className="mt-1 text-ink-2">
        Solid counts. Of {whole(calls.now.answered)} answered:{' '}
        {calls.others.map((other) => `${whole(other.counted)} at ${other.seconds} s`).join(', ')}.
      </p>
    </Panel>
  );
}
