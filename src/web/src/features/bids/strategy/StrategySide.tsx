import { useEffect, useRef, type ReactNode } from 'react';
import { useAccount } from '../../../api/account';
import { useCommand } from '../../../api/hooks';
import { Button } from '../../../ui/Button';
import { money, shortDay, times } from '../../../ui/format';
import { Panel } from '../../../ui/Panel';
import type { Strategy, StrategyWish } from '../useBids';

interface Props {
  campaignId: number;
  known: Strategy;
  /** The campaign as it was when its strategy began to be changed. */
  begun: Strategy;
  wish: StrategyWish;
  isSettled: boolean;
  /** True when Enter asked for the step. */
  leads: boolean;
  months: ReactNode;
  onTarget: (target: string) => void;
  onSet: () => void;
}

/** What runs and how it does, a first target, and the step that changes it. */
export function StrategySide({
  campaignId,
  known,
  begun,
  wish,
  isSettled,
  leads,
  months,
  onTarget,
  onSet,
}: Props) {
  const account = useAccount();
  const run = useCommand();
  const { runs, target } = known;
  const name = known.strategies.find((each) => each.key === wish.strategy)?.name;
  const changed: Record<string, string> = wish.strategy === begun.chosen ? {} : { strategy: name ?? '' };
  for (const field of ['targetCpa', 'targetRoas', 'lowestBid', 'highestBid'] as const)
    if (wish[field].trim() !== (begun.values[field] ?? '')) changed[field] = wish[field].trim();
  const canBeTaken = known.problems.length === 0 && isSettled;
  const step = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    if (leads && canBeTaken) step.current?.focus();
  }, [leads, canBeTaken]);
  const set = () => {
    if (run.isPending) return;
    run.mutate(
      {
        type: 'setFields',
        items: [{ kind: 'campaign', id: campaignId }],
        values: changed,
        seen: [{ kind: 'campaign', id: campaignId, version: begun.version }],
      },
      { onSuccess: onSet },
    );
  };
  return (
    <aside
      className="flex min-h-0 flex-col border-l border-line bg-paper p-3"
      aria-label="Strategy that runs"
    >
      <div className="flex min-h-0 flex-1 flex-col gap-2.5 overflow-auto">
        <Panel title="On the network now">
          {runs ? (
            <>
              <p className="font-head text-[15px] font-semibold">
                {runs.name}
                {runs.since && (
                  <span className="font-body font-normal text-ink-3"> since {shortDay(runs.since)}</span>
                )}
              </p>
              {runs.costPerConversion !== null && (
                <p className="mt-1">
                  A conversion costs <strong>{money(runs.costPerConversion, account)}</strong>
                  {runs.low !== null && runs.high !== null && (
                    <span className="text-ink-3">
                      {' '}
                      ({money(runs.low, account)} – {money(runs.high, account)})
                    </span>
                  )}
                </p>
              )}
              <div className="mt-1 space-y-1 text-[12.5px] text-ink-2">
                {runs.sentences.map((sentence) => (
                  <p key={sentence}>{sentence}</p>
                ))}
              </div>
            </>
          ) : (
            <p className="text-ink-2">People set its bids: max CPC and modifiers.</p>
          )}
        </Panel>
        {target && (
          <Panel title="A first target">
            <div className="flex flex-wrap items-center gap-2">
              {months}
              {known.typedTarget && (
                <Button onClick={() => onTarget(known.typedTarget ?? '')}>Take {known.typedTarget}</Button>
              )}
            </div>
            <p className="mt-1 text-[12.5px] text-ink-2">{target.why}</p>
            {target.season && <p className="mt-1 text-[12.5px] text-ink-2">{target.season}</p>}
          </Panel>
        )}
        {known.parts.length > 0 && (
          <Panel title={`How likely a click is to convert: ${known.rate}% in the campaign`}>
            <Parts parts={known.parts} />
          </Panel>
        )}
      </div>
      <div className="pt-2">
        {Object.keys(changed).length > 0 && (
          <Button ref={step} tone="ember" className="w-full py-2" disabled={!canBeTaken} onClick={set}>
            {wish.strategy === begun.chosen ? `Change ${name}` : `Bid by ${name}`}
          </Button>
        )}
      </div>
    </aside>
  );
}

/** What a strategy takes devices, hours, sites and places for: those that differ. */
function Parts({ parts }: { parts: Strategy['parts'] }) {
  return (
    <ul className="space-y-0.5 text-[12.5px]">
      {parts.map((part) => (
        <li key={`${part.kind} ${part.name}`} className="flex items-center gap-2">
          <span className="min-w-0 flex-1 truncate">{part.name}</span>
          <span aria-hidden className="relative h-[8px] w-[110px] rounded-sm bg-sunk">
            <span className="absolute inset-y-[-2px] left-1/2 w-px bg-ink-3" />
            <span
              className="absolute inset-y-0 rounded-sm bg-plum"
              style={
                part.times >= 1
                  ? { left: '50%', width: `${Math.min(50, (part.times - 1) * 50)}%` }
                  : { right: '50%', width: `${(1 - part.times) * 50}%` }
              }
            />
          </span>
          <span className="w-[44px] text-right">{times(part.times)}</span>
        </li>
      ))}
    </ul>
  );
}
