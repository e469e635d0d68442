import clsx from 'clsx';
import { useRef, type KeyboardEvent } from 'react';
import { useAccount } from '../../api/account';
import { useCommand } from '../../api/hooks';
import { count, money, nothing } from '../../ui/format';
import { isHome } from '../../ui/home';
import { WeightMark } from '../../ui/Marks';
import { Tick } from '../../ui/Tick';
import type { ConversionAction } from './useConversions';

interface Props {
  actions: readonly ConversionAction[];
  current: number;
  onCurrent: (id: number) => void;
}

/** The conversion actions with what each counted, and whether it still does. */
export function ActionTable({ actions, current, onCurrent }: Props) {
  const account = useAccount();
  const table = useRef<HTMLTableElement>(null);
  const run = useCommand();
  const keys = (event: KeyboardEvent, at: number) => {
    const next = { ArrowDown: at + 1, ArrowUp: at - 1, Home: 0, End: actions.length - 1 }[event.key];
    const to = next === undefined ? undefined : actions[next];
    if (!to) return;
    event.preventDefault();
    onCurrent(to.id);
    table.current?.querySelector<HTMLElement>(`[data-action="${to.id}"]`)?.focus();
  };
  return (
    <table ref={table} className="w-full border-collapse" aria-label="Conversion actions">
      <thead className="sticky top-0 z-10 bg-sheet">
        <tr className="h-[29px] border-b border-line-strong text-[12px] text-ink-3">
          <th scope="col" className="px-3 text-left font-semibold">
            Action
          </th>
          <th scope="col" className="px-2 text-left font-semibold">
            Counts
          </th>
          <th scope="col" className="px-2 text-right font-semibold">
            Value
          </th>
          <th scope="col" className="px-2 text-left font-semibold whitespace-nowrap">
            Last 28 days
          </th>
          <th scope="col" className="px-2 text-right font-semibold">
            Conv.
          </th>
          <th scope="col" className="px-2 text-left font-semibold whitespace-nowrap">
            Steers bids
          </th>
          <th scope="col" className="px-3 text-left font-semibold">
            Health
          </th>
        </tr>
      </thead>
      <tbody>
        {actions.map((action, at) => (
          <tr
            key={action.id}
            className={clsx('h-[27px] border-b border-line-soft', action.id === current && 'bg-plum-wash')}
            onClick={() => onCurrent(action.id)}
          >
            <th scope="row" className="max-w-[190px] p-0 text-left">
              <button
                type="button"
                data-action={action.id}
                {...(action.id === current ? isHome : {})}
                tabIndex={action.id === current ? 0 : -1}
                aria-current={action.id === current}
                title={action.where ? `${action.name} · ${action.where}` : action.name}
                className={clsx(
                  'block w-full truncate px-3 py-1 text-left font-semibold',
                  action.isPaused && 'text-ink-3',
                )}
                onFocus={() => onCurrent(action.id)}
                onKeyDown={(event) => keys(event, at)}
              >
                {action.isPaused ? '○ ' : ''}
                {action.name}
              </button>
            </th>
            <td className="max-w-[190px] truncate px-2 text-ink-2" title={action.where ?? undefined}>
              {action.counts}
            </td>
            <td className="px-2 text-right">{money(action.value, account)}</td>
            <td className="px-2">
              <Days action={action} />
            </td>
            <td className="px-2 text-right">{count(action.conversions)}</td>
            <td className="px-2 whitespace-nowrap">
              <span className="inline-flex items-center gap-1.5">
                <Tick
                  label={`${action.name} may steer bids`}
                  checked={action.steers}
                  onChange={(steers) =>
                    run.mutate({
                      type: 'setFields',
                      items: [{ kind: 'conversionAction', id: action.id }],
                      values: { steers: steers ? 'yes' : 'no' },
                      seen: [{ kind: 'conversionAction', id: action.id, version: action.version }],
                    })
                  }
                />
                {action.steersNow ?? <span className="text-ink-3">{nothing}</span>}
              </span>
            </td>
            <td className="px-3 whitespace-nowrap">
              {action.weight ? (
                <WeightMark weight={action.weight}>{action.health}</WeightMark>
              ) : (
                <span className="text-ink-2">{action.health}</span>
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

const high = 17;

/** One bar for each day; a day without any is a stroke on the ground. */
function Days({ action }: { action: ConversionAction }) {
  const most = Math.max(1, ...action.days);
  return (
    <svg
      width={action.days.length * 4}
      height={high + 1}
      role="img"
      aria-label={`${count(action.conversions)} in 28 days, at most ${count(most)} on a day`}
    >
      {action.days.map((made, at) => (
        <rect
          key={at}
          x={at * 4}
          width={3}
          y={made > 0 ? high - Math.max(2, (made / most) * high) : high - 1}
          height={made > 0 ? Math.max(2, (made / most) * high) : 1}
          className={made > 0 ? 'fill-plum' : 'fill-line-strong'}
        />
      ))}
    </svg>
  );
}
