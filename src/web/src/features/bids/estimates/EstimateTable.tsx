import clsx from 'clsx';
import { useRef, type KeyboardEvent } from 'react';
import { useAccount } from '../../../api/account';
import { MatchChip } from '../../../ui/Marks';
import { count, money, shortDay, whole } from '../../../ui/format';
import { isHome } from '../../../ui/home';
import type { EstimateLine } from '../useBids';

interface Props {
  lines: readonly EstimateLine[];
  current?: number | null;
  onCurrent?: (id: number) => void;
  ownTitle?: string;
}

/** Keywords with what a week at their bid brings, by Fendrik and by the network; what is not to be had says why. */
export function EstimateTable({ lines, current, onCurrent, ownTitle = 'Fendrik, from history' }: Props) {
  const account = useAccount();
  const table = useRef<HTMLTableElement>(null);
  const keys = (event: KeyboardEvent, at: number) => {
    const by = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    const next = by === undefined ? undefined : lines[at + by];
    if (!next) return;
    onCurrent?.(next.id);
    table.current?.querySelector<HTMLElement>(`[data-keyword="${next.id}"]`)?.focus();
    event.preventDefault();
  };
  const head = (name: string, className = '') => (
    <th scope="col" className={clsx('px-2 text-right font-semibold', className)}>
      {name}
    </th>
  );
  return (
    <table ref={table} className="w-full border-collapse" aria-label="Estimates of keywords">
      <thead className="sticky top-0 z-10 bg-sheet text-[12px] text-ink-3">
        <tr>
          <th colSpan={2} />
          <th
            colSpan={3}
            scope="colgroup"
            className="border-l border-line-soft px-2 text-left font-semibold text-ink"
          >
            {ownTitle}
          </th>
          <th
            colSpan={3}
            scope="colgroup"
            className="border-l border-line-soft px-2 text-left font-semibold text-ink"
          >
            The network
          </th>
        </tr>
        <tr className="border-b border-line-strong">
          <th scope="col" className="px-3 py-1 text-left font-semibold">
            Keyword
          </th>
          {head('Bid')}
          {head('Clicks', 'border-l border-line-soft')}
          {head('Cost')}
          {head('Conv.')}
          {head('Clicks', 'border-l border-line-soft')}
          {head('Cost')}
          {head('Asked')}
        </tr>
      </thead>
      <tbody>
        {lines.map((line, at) => (
          <tr
            key={line.id || line.text + line.match}
            className={clsx('h-[27px] border-b border-line-soft', line.id === current && 'bg-plum-wash')}
          >
            <th scope="row" className="max-w-[240px] p-0 text-left font-normal">
              {onCurrent ? (
                <button
                  type="button"
                  data-keyword={line.id}
                  {...(line.id === current || (current === null && at === 0) ? isHome : {})}
                  aria-current={line.id === current}
                  className="flex w-full items-center gap-1.5 px-3 py-1 text-left"
                  onClick={() => onCurrent(line.id)}
                  onKeyDown={(event) => keys(event, at)}
                >
                  <Name line={line} />
                </button>
              ) : (
                <span className="flex items-center gap-1.5 px-3">
                  <Name line={line} />
                </span>
              )}
            </th>
            <td className="px-2 text-right">{money(line.bid, account)}</td>
            {line.own ? (
              <>
                <td className="border-l border-line-soft px-2 text-right whitespace-nowrap">
                  <strong>{count(line.own.clicks.likely)}</strong>{' '}
                  <span className="text-ink-3">
                    {count(line.own.clicks.low)}–{count(line.own.clicks.high)}
                  </span>
                </td>
                <td className="px-2 text-right">{money(line.own.cost.likely, account)}</td>
                <td className="px-2 text-right">{count(line.own.conversions.likely)}</td>
              </>
            ) : (
              <td
                colSpan={3}
                className="max-w-[200px] truncate border-l border-line-soft px-2 text-[12.5px] text-ink-3"
                title={line.ownReason ?? ''}
              >
                — {line.ownReason}
              </td>
            )}
            {line.network ? (
              <>
                <td
                  className="border-l border-line-soft px-2 text-right"
                  title={`${whole(line.network.impressions)} impressions`}
                >
                  {count(line.network.clicks)}
                </td>
                <td className="px-2 text-right">{money(line.network.cost, account)}</td>
              </>
            ) : (
              <td
                colSpan={2}
                className="max-w-[170px] truncate border-l border-line-soft px-2 text-[12.5px] text-ink-3"
                title={line.networkReason ?? ''}
              >
                — {line.networkReason}
              </td>
            )}
            <td className="px-2 pr-3 text-right whitespace-nowrap text-ink-3">
              {line.askedOn ? shortDay(line.askedOn) : '—'}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Name({ line }: { line: EstimateLine }) {
  return (
    <>
      {line.match && <MatchChip match={line.match} />}
      <span
        className="truncate font-semibold"
        title={line.adGroup ? `${line.text} in ${line.adGroup}` : line.text}
      >
        {line.text}
      </span>
    </>
  );
}
