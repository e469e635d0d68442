import clsx from 'clsx';
import { useRef, type KeyboardEvent } from 'react';
import { useAccount } from '../../api/account';
import { whole, money } from '../../ui/format';
import { isHome } from '../../ui/home';
import type { WeekHour } from './useHours';
import { cellOf, days, holds, hoursOfDay, type Block, type Cell } from './weekSelection';

export type Behind =
  'impressions' | 'clicks' | 'cost' | 'conversions' | 'costPerConversion' | 'answered' | 'missed';

const amountOf = (hour: WeekHour, behind: Behind) =>
  behind === 'answered' || behind === 'missed' ? hour[behind] : (hour.figures[behind] ?? 0);

interface Props {
  week: readonly WeekHour[];
  behind: Behind;
  block: Block;
  onBlock: (block: Block) => void;
  /** Space: shows, or no longer. */
  onSwitch: () => void;
  /** Enter, + or −: a modifier is to be typed. */
  onModifier: (sign: string) => void;
  /** Ctrl D: the day is copied to the next. */
  onCopyDown: () => void;
}

const moves: Record<string, readonly [number, number]> = {
  ArrowDown: [1, 0],
  ArrowUp: [-1, 0],
  ArrowRight: [0, 1],
  ArrowLeft: [0, -1],
};

/** The week, a cell for each hour: when ads show, at which bids, and what it brought. */
export function WeekGrid({ week, behind, block, onBlock, onSwitch, onModifier, onCopyDown }: Props) {
  const account = useAccount();
  const table = useRef<HTMLTableElement>(null);
  const dragging = useRef<Cell | null>(null);
  const highest = Math.max(...week.map((hour) => amountOf(hour, behind)));
  const go = (cell: Cell, extend: boolean) => {
    onBlock({ from: extend ? block.from : cell, to: cell });
    table.current?.querySelector<HTMLElement>(`[data-hour="${cell.day} ${cell.hour}"]`)?.focus();
  };
  const keys = (event: KeyboardEvent, here: Cell) => {
    const move = moves[event.key];
    if (move) go(cellOf(here.day + move[0], here.hour + move[1]), event.shiftKey);
    else if (event.key === 'Home') go(cellOf(here.day, 0), event.shiftKey);
    else if (event.key === 'End') go(cellOf(here.day, hoursOfDay - 1), event.shiftKey);
    else if (event.key === ' ') onSwitch();
    else if (event.key === 'Enter') onModifier('');
    else if (['+', '-', '−'].includes(event.key)) onModifier(event.key === '+' ? '+' : '−');
    else if (event.key.toLowerCase() === 'd' && (event.ctrlKey || event.metaKey)) {
      onCopyDown();
      go(cellOf(here.day + 1, here.hour), false);
    } else if (event.key.toLowerCase() === 'a' && (event.ctrlKey || event.metaKey))
      onBlock({ from: cellOf(0, 0), to: cellOf(6, 23) });
    else return;
    event.preventDefault();
  };
  return (
    <table
      ref={table}
      role="grid"
      aria-label="Hours of the week"
      aria-multiselectable
      className="w-full table-fixed border-separate border-spacing-[2px] select-none"
      onMouseUp={() => (dragging.current = null)}
      onMouseLeave={() => (dragging.current = null)}
    >
      <thead>
        <tr className="text-left text-[11.5px] text-ink-3">
          <th className="w-11" aria-label="Day" />
          {Array.from({ length: hoursOfDay }, (_, hour) => (
            <th key={hour} scope="col" className="font-normal">
              {hour % 3 === 0 ? hour : <span className="sr-only">{hour}</span>}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {days.map((name, day) => (
          <tr key={name}>
            <th scope="row" className="text-left text-[12px] font-semibold capitalize">
              {name.slice(0, 3)}
            </th>
            {week.slice(day * hoursOfDay, (day + 1) * hoursOfDay).map((hour) => {
              const cell = { day, hour: hour.hour };
              const chosen = holds(block, cell);
              const isCurrent = block.to.day === day && block.to.hour === hour.hour;
              const amount = amountOf(hour, behind);
              return (
                <td key={hour.hour} role="gridcell" aria-selected={chosen} className="p-0">
                  <button
                    type="button"
                    data-hour={`${day} ${hour.hour}`}
                    {...(isCurrent ? isHome : {})}
                    tabIndex={isCurrent ? 0 : -1}
                    title={`${name.slice(0, 3)} ${hour.hour}–${hour.hour + 1}: ${hour.says}`}
                    onMouseDown={(event) => {
                      if (event.shiftKey) onBlock({ from: block.from, to: cell });
                      else onBlock({ from: cell, to: cell });
                      dragging.current = event.shiftKey ? block.from : cell;
                    }}
                    onMouseEnter={() => dragging.current && onBlock({ from: dragging.current, to: cell })}
                    onKeyDown={(event) => keys(event, cell)}
                    className={clsx(
                      'relative flex h-[38px] w-full items-end overflow-hidden rounded-[3px] outline-offset-1',
                      chosen && 'outline-2 outline-tide',
                    )}
                  >
                    <span className="sr-only">
                      {`${name} ${hour.hour}: ${hour.says}. ${whole(hour.figures.clicks)} clicks, ${money(hour.figures.cost, account)}, ${hour.figures.conversions} conversions`}
                    </span>
                    <span aria-hidden className="absolute inset-0 flex">
                      {hour.quarters.map((quarter, at) => (
                        <span
                          key={at}
                          className={clsx(
                            'flex-1',
                            !quarter.shows
                              ? 'bg-sunk'
                              : quarter.modifier < 0
                                ? 'bg-lowered'
                                : quarter.modifier > 0
                                  ? 'bg-raised'
                                  : 'bg-plum-wash',
                          )}
                        />
                      ))}
                    </span>
                    <span
                      aria-hidden
                      className={clsx(
                        'relative mx-auto w-[76%] rounded-t-[2px]',
                        hour.quarters.some((quarter) => quarter.shows) ? 'bg-plum' : 'bg-line-strong',
                      )}
                      style={{
                        height: highest > 0 ? `${Math.max(amount > 0 ? 4 : 0, (amount / highest) * 78)}%` : 0,
                      }}
                    />
                    {hour.quarters.some((quarter) => quarter.shows && !quarter.answered) && (
                      <span
                        aria-hidden
                        className="absolute top-[3px] right-[3px] size-[7px] rounded-full border-[1.5px] border-brick"
                      />
                    )}
                    {hour.missed > 0 && (
                      <span
                        aria-hidden
                        className="absolute top-[3px] right-[3px] size-[7px] rounded-full bg-brick"
                      />
                    )}
                    {hour.differs && (
                      <span
                        aria-hidden
                        className="absolute top-0 left-[3px] text-[11px] font-bold text-ochre"
                      >
                        ≠
                      </span>
                    )}
                  </button>
                </td>
              );
            })}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** What the cells mean. */
export function WeekLegend({ answering, missed }: { answering: boolean; missed: boolean }) {
  return (
    <p className="mt-1 flex flex-wrap items-center gap-x-4 gap-y-1 text-[12px] text-ink-2">
      <Key className="bg-plum-wash">shows</Key>
      <Key className="bg-raised">bid raised</Key>
      <Key className="bg-lowered">bid lowered</Key>
      <Key className="bg-sunk">does not show</Key>
      {answering && (
        <span className="flex items-center gap-1.5">
          <span aria-hidden className="size-[7px] rounded-full border-[1.5px] border-brick" />
          nobody takes calls
        </span>
      )}
      {missed && (
        <span className="flex items-center gap-1.5">
          <span aria-hidden className="size-[7px] rounded-full bg-brick" />
          calls in vain
        </span>
      )}
      <span className="ml-auto text-ink-3">
        Space switches · Enter a modifier · Shift arrows choose more · Ctrl D copies the day
      </span>
    </p>
  );
}

function Key({ className, children }: { className: string; children: string }) {
  return (
    <span className="flex items-center gap-1.5">
      <span aria-hidden className={clsx('h-3.5 w-4 rounded-[3px] border border-line', className)} />
      {children}
    </span>
  );
}
