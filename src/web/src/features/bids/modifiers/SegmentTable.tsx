import clsx from 'clsx';
import { Fragment, useRef, type KeyboardEvent } from 'react';
import { useAccount } from '../../../api/account';
import type { Schemas } from '../../../api/client';
import { count, money, whole } from '../../../ui/format';
import { isHome } from '../../../ui/home';
import { costAxis, type CostAxis } from './costAxis';
import type { SegmentRow, Segments } from '../useBids';

export const keyOf = (row: Pick<SegmentRow, 'kind' | 'key'>) => `${row.kind} ${row.key}`;

const titles: Record<Schemas['SegmentKind'], string> = {
  device: 'Devices',
  hours: 'Hours',
  site: 'Kinds of site',
  place: 'Places where people were',
  audience: 'Audiences',
};

interface Props {
  segments: Segments;
  current: string;
  onCurrent: (key: string) => void;
  /** The modifiers that would be set, by segment. */
  chosen: ReadonlyMap<string, string>;
  onToggle: (row: SegmentRow) => void;
}

/** Segments with where the true cost of a conversion lies, against that of the whole. */
export function SegmentTable({ segments, current, onCurrent, chosen, onToggle }: Props) {
  const account = useAccount();
  const table = useRef<HTMLTableElement>(null);
  const rows = segments.segments;
  const axis = costAxis([segments.usualCost, ...rows.flatMap((row) => [row.lowCost, row.highCost])]);
  const keys = (event: KeyboardEvent, at: number) => {
    const row = rows[at];
    const by = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (by) {
      const next = rows[at + by];
      if (!next) return;
      onCurrent(keyOf(next));
      table.current?.querySelector<HTMLElement>(`[data-segment="${keyOf(next)}"]`)?.focus();
    } else if (event.key === ' ' && row) onToggle(row);
    else return;
    event.preventDefault();
  };
  return (
    <table ref={table} className="w-full table-fixed border-collapse" role="grid" aria-label="Segments">
      <thead className="sticky top-0 z-10 bg-sheet">
        <tr className="border-b border-line-strong text-[12px] text-ink-3">
          <th scope="col" className="w-[17%] px-3 py-1 text-left font-semibold">
            Segment
          </th>
          <th scope="col" className="w-[7%] px-2 text-right font-semibold">
            Clicks
          </th>
          <th scope="col" className="w-[9%] px-2 text-right font-semibold">
            Cost
          </th>
          <th scope="col" className="w-[7%] px-2 text-right font-semibold">
            Conv.
          </th>
          <th scope="col" className="w-[10%] px-2 text-right font-semibold">
            Cost / conv.
          </th>
          <th scope="col" className="px-2 font-semibold">
            <span className="sr-only">Where the true cost of a conversion lies</span>
            {axis && <Ticks axis={axis} />}
          </th>
          <th scope="col" className="w-[8%] px-2 text-right font-semibold">
            Now
          </th>
          <th scope="col" className="w-[16%] px-2 text-left font-semibold">
            Proposed
          </th>
        </tr>
      </thead>
      <tbody>
        {rows.map((row, at) => (
          <Fragment key={keyOf(row)}>
            {rows[at - 1]?.kind !== row.kind && (
              <tr className="border-b border-line bg-paper">
                <th scope="rowgroup" colSpan={8} className="px-3 py-1 text-left font-head text-[13.5px]">
                  {titles[row.kind]}
                </th>
              </tr>
            )}
            <tr className={clsx('border-b border-line-soft', keyOf(row) === current && 'bg-plum-wash')}>
              <th scope="row" className="p-0 text-left font-normal">
                <button
                  type="button"
                  data-segment={keyOf(row)}
                  {...(keyOf(row) === current ? isHome : {})}
                  tabIndex={keyOf(row) === current ? 0 : -1}
                  aria-current={keyOf(row) === current}
                  className={clsx(
                    'block w-full truncate px-3 py-1 pl-6 text-left',
                    keyOf(row) === current && 'font-semibold',
                  )}
                  onClick={() => onCurrent(keyOf(row))}
                  onFocus={() => onCurrent(keyOf(row))}
                  onKeyDown={(event) => keys(event, at)}
                >
                  {row.name}
                </button>
              </th>
              <td className="px-2 text-right">{whole(row.figures.clicks)}</td>
              <td className="px-2 text-right">{money(row.figures.cost, account)}</td>
              <td className="px-2 text-right">{count(row.figures.conversions)}</td>
              <td className="px-2 text-right">{money(row.figures.costPerConversion, account)}</td>
              <td className="px-2">{axis && <Bar row={row} axis={axis} usual={segments.usualCost} />}</td>
              <td className="px-2 text-right whitespace-nowrap text-ink-2">{row.now}</td>
              <td className="px-2 py-[2px]">
                {chosen.has(keyOf(row)) || row.proposed ? (
                  <button
                    type="button"
                    tabIndex={-1}
                    aria-pressed={chosen.has(keyOf(row))}
                    aria-label={`${row.name}: ${chosen.get(keyOf(row)) ?? row.proposed ?? ''}`}
                    onClick={() => onToggle(row)}
                    className={clsx(
                      'rounded-sm border px-2 py-[1px] font-semibold',
                      chosen.has(keyOf(row))
                        ? 'border-plum bg-plum text-white'
                        : 'border-line-strong bg-sheet',
                    )}
                  >
                    {chosen.get(keyOf(row)) ?? row.proposed}
                  </button>
                ) : (
                  <span className="text-[12.5px] text-ink-3">{row.says}</span>
                )}
              </td>
            </tr>
          </Fragment>
        ))}
      </tbody>
    </table>
  );
}

function Ticks({ axis }: { axis: CostAxis }) {
  const account = useAccount();
  return (
    <span aria-hidden className="relative block h-4">
      {axis.ticks.map((tick) => (
        <span
          key={tick}
          className="absolute -translate-x-1/2 font-normal"
          style={{ left: `${axis.at(tick) * 100}%` }}
        >
          {account.currencySign}
          {tick}
        </span>
      ))}
    </span>
  );
}

function Bar({ row, axis, usual }: { row: SegmentRow; axis: CostAxis; usual: number | null }) {
  if (row.lowCost === null || row.highCost === null || row.likelyCost === null) return null;
  const sure = row.verdict === 'sure';
  return (
    <span aria-hidden className="relative block h-[18px]">
      <span className="absolute top-1/2 h-px w-full bg-line" />
      {usual !== null && (
        <span
          className="absolute top-0 bottom-0 border-l border-dashed border-ink"
          style={{ left: `${axis.at(usual) * 100}%` }}
        />
      )}
      <span
        className={clsx(
          'absolute top-1/2 h-[5px] -translate-y-1/2 rounded-full',
          sure ? 'bg-plum-soft' : 'bg-unsure',
        )}
        style={{
          left: `${axis.at(row.lowCost) * 100}%`,
          width: `${(axis.at(row.highCost) - axis.at(row.lowCost)) * 100}%`,
        }}
      />
      <span
        className="absolute top-1/2 h-3 w-1 -translate-x-1/2 -translate-y-1/2 rounded-[1px] bg-plum"
        style={{ left: `${axis.at(row.likelyCost) * 100}%` }}
      />
    </span>
  );
}
