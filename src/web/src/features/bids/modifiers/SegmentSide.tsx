import { useState, type FormEvent } from 'react';
import { useAccount } from '../../../api/account';
import { useCommand } from '../../../api/hooks';
import { Button } from '../../../ui/Button';
import { TextField } from '../../../ui/Field';
import { count, money, plural } from '../../../ui/format';
import { goHome } from '../../../ui/home';
import { Panel } from '../../../ui/Panel';
import { keyOf } from './SegmentTable';
import type { SegmentRow, Segments } from '../useBids';

interface Props {
  campaignId: number;
  segments: Segments;
  row: SegmentRow;
  chosen: ReadonlyMap<string, string>;
  onChoose: (row: SegmentRow, modifier: string) => void;
  onSet: () => void;
}

/** Why a segment is proposed what it is, what else could be done, and what all modifiers make of bids. */
export function SegmentSide({ campaignId, segments, row, chosen, onChoose, onSet }: Props) {
  const run = useCommand();
  const { without } = row;
  const isPriced = row.kind !== 'site' && row.key >= 0 && (row.kind !== 'place' || row.target !== null);
  return (
    <aside
      className="flex min-h-0 flex-col gap-2.5 overflow-auto border-l border-line bg-paper p-3"
      aria-label="Chosen segment"
    >
      <h2 className="text-[15px]">{row.name}</h2>
      <Panel title={row.proposed ? `Why ${row.proposed}` : `Proposed: ${row.says}`}>
        <div className="space-y-1 text-[12.5px] text-ink-2">
          {row.why.map((sentence) => (
            <p key={sentence}>{sentence}</p>
          ))}
        </div>
        {row.trade && <p className="mt-1.5 border-t border-line-soft pt-1.5 text-[12.5px]">{row.trade}</p>}
        {isPriced && <Own key={keyOf(row)} row={row} onChoose={onChoose} />}
        {without && (
          <div className="mt-2">
            <Button
              onClick={() => {
                if (run.isPending) return;
                run.mutate({
                  type: 'setFields',
                  items: [{ kind: 'campaign', id: campaignId }],
                  values: { [row.withoutField ?? '']: without },
                  seen: [{ kind: 'campaign', id: campaignId, version: segments.version }],
                });
              }}
            >
              {row.kind === 'place' ? 'Keep to people in the places' : `Leave out ${row.name.toLowerCase()}`}
            </Button>
          </div>
        )}
      </Panel>
      {row.effect && (
        <Panel title={`What ${row.proposed} would change in a week`}>
          <Effect effect={row.effect} />
        </Panel>
      )}
      {segments.stack && (
        <Panel title="What all modifiers make of bids">
          <Stack side={segments.stack.lowest} />
          <Stack side={segments.stack.highest} />
        </Panel>
      )}
      <div className="mt-auto pt-2">
        {chosen.size > 0 && (
          <Button tone="ember" className="w-full py-2" onClick={onSet}>
            Set {plural(chosen.size, 'modifier')}
          </Button>
        )}
      </div>
    </aside>
  );
}

function Effect({ effect }: { effect: NonNullable<SegmentRow['effect']> }) {
  const account = useAccount();
  const lines = [
    { name: 'Clicks', now: count(effect.clicksNow), then: effect.clicks, shown: count },
    {
      name: 'Cost',
      now: money(effect.costNow, account),
      then: effect.cost,
      shown: (amount: number) => money(amount, account),
    },
    { name: 'Conversions', now: count(effect.conversionsNow), then: effect.conversions, shown: count },
  ];
  return (
    <table className="w-full" aria-label="Now and then">
      <tbody>
        {lines.map((line) => (
          <tr key={line.name}>
            <th scope="row" className="text-left font-normal">
              {line.name}
            </th>
            <td className="text-right whitespace-nowrap">
              {line.now} →{' '}
              <strong>
                {line.shown(line.then.low)} – {line.shown(line.then.high)}
              </strong>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** A modifier of one's own, or one that the rule of the trade proposes. */
function Own({ row, onChoose }: { row: SegmentRow; onChoose: Props['onChoose'] }) {
  const [text, setText] = useState('');
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (text.trim()) onChoose(row, text.trim());
    setText('');
    goHome();
  };
  return (
    <div className="mt-2 flex flex-wrap items-end gap-1.5">
      {row.cuts.map((each) => (
        <Button key={each} onClick={() => onChoose(row, each)}>
          {each === '−100%' ? 'Stop' : each}
        </Button>
      ))}
      <form onSubmit={submit}>
        <TextField
          label="Another modifier"
          className="w-[112px]"
          value={text}
          placeholder="+20%"
          onChange={(event) => setText(event.target.value)}
        />
      </form>
    </div>
  );
}

function Stack({ side }: { side: NonNullable<Segments['stack']>['lowest'] }) {
  const account = useAccount();
  const [base, ...modifiers] = side.steps;
  if (!base) return null;
  return (
    <p className="mb-1 flex flex-wrap items-center gap-1">
      <span className="rounded-sm border border-line px-1.5">
        {money(base.bidAfter, account)} <span className="text-ink-3">{base.name}</span>
      </span>
      {modifiers.map((step) => (
        <span key={step.name}>
          ×{' '}
          <span className="rounded-sm border border-line px-1.5">
            {step.percent > 0 ? '+' : '−'}
            {Math.abs(step.percent)}% <span className="text-ink-3">{step.name}</span>
          </span>
        </span>
      ))}
      <strong className="ml-1 font-head text-[15px] text-plum">{money(side.bid, account)}</strong>
    </p>
  );
}
