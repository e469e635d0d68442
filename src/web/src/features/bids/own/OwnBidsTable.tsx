import clsx from 'clsx';
import { useEffect, useRef } from 'react';
import { useAccount } from '../../../api/account';
import { MatchChip } from '../../../ui/Marks';
import { count, money, percent } from '../../../ui/format';
import { isHome } from '../../../ui/home';
import { Tick } from '../../../ui/Tick';
import type { useTicks } from '../../../ui/useTicks';
import type { KeywordBid } from '../useBids';
import { BidCell } from './BidCell';

interface Props {
  rows: readonly KeywordBid[];
  ticks: ReturnType<typeof useTicks<KeywordBid>>;
}

const heads: { name: string; title?: string }[] = [
  { name: 'Base', title: 'The max CPC of the ad group' },
  { name: 'Own', title: 'The max CPC of the keyword itself; empty to go by the base' },
  {
    name: 'Lowest – highest',
    title: 'What modifiers make of it, from the lowest to the highest',
  },
  { name: 'CPC', title: 'What a click cost' },
  { name: 'Cost' },
  { name: 'Conv.' },
  { name: 'Cost / conv.' },
  { name: 'Quality' },
  { name: 'Lost to rank', title: 'Searches in which it won no place' },
  { name: 'First page', title: 'The bid that mostly wins a place, by the network’s estimate' },
  {
    name: 'Top',
    title: 'The bid that mostly wins a place above the results, by the network’s estimate',
  },
];

/** Keywords with what they bid and what that brought; the keyboard goes by rows. */
export function OwnBidsTable({ rows, ticks }: Props) {
  const account = useAccount();
  const table = useRef<HTMLTableElement>(null);
  useEffect(() => {
    table.current?.querySelector(`[data-row="${ticks.active}"]`)?.scrollIntoView({ block: 'nearest' });
  }, [ticks.active]);
  return (
    <table
      ref={table}
      {...isHome}
      role="grid"
      aria-label="Bids of keywords"
      aria-multiselectable
      aria-activedescendant={`bid-row-${ticks.active}`}
      tabIndex={0}
      className="w-full border-collapse"
      onKeyDown={(event) => {
        const row = rows[ticks.active];
        if (event.key === 'b' && row && event.target === event.currentTarget) {
          document.getElementById(`base-${row.id}`)?.focus();
          event.preventDefault();
        } else ticks.onKeyDown(event);
      }}
    >
      <thead className="sticky top-0 z-10 bg-sheet">
        <tr className="h-[29px] border-b border-line-strong text-[12px] whitespace-nowrap text-ink-3">
          <th scope="col" className="w-[36px] pl-3">
            <Tick
              label="Choose all"
              checked={ticks.ticked.length === rows.length}
              onChange={() => ticks.all()}
            />
          </th>
          <th scope="col" className="px-2 text-left font-semibold">
            Keyword
          </th>
          <th scope="col" className="px-2 text-left font-semibold">
            Ad group
          </th>
          {heads.map((head) => (
            <th key={head.name} scope="col" title={head.title} className="px-2 text-right font-semibold">
              {head.name}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((row, at) => (
          <tr
            key={row.id}
            id={`bid-row-${at}`}
            data-row={at}
            aria-selected={ticks.has(row)}
            className={clsx(
              'h-[27px] border-b border-line-soft',
              ticks.has(row) ? 'bg-plum-wash' : at === ticks.active && 'bg-paper',
              at === ticks.active && 'outline-1 -outline-offset-1 outline-tide',
            )}
            onClick={() => ticks.setActive(at)}
          >
            <td className="pl-3 leading-none">
              <Tick
                label={`Choose ${row.text}`}
                checked={ticks.has(row)}
                onChange={() => ticks.toggle(row)}
              />
            </td>
            <th scope="row" className="max-w-[230px] px-2 text-left font-normal">
              <span className="flex items-center gap-1.5">
                {row.match && <MatchChip match={row.match} />}
                <span
                  className={clsx('truncate font-semibold', row.isPaused && 'text-ink-3')}
                  title={row.text}
                >
                  {row.isPaused ? '○ ' : ''}
                  {row.text}
                </span>
              </span>
            </th>
            <td className="max-w-[130px] truncate px-2 text-ink-2" title={row.adGroup}>
              {row.adGroup}
            </td>
            <td className="px-2 text-right">
              <BidCell
                id={`base-${row.id}`}
                item={{ kind: 'adGroup', id: row.adGroupId }}
                version={row.adGroupVersion}
                label={`Base bid of ${row.adGroup}`}
                kept={row.typedBase}
                placeholder="none"
              />
            </td>
            <td className="px-2 text-right">
              <BidCell
                id={`own-${row.id}`}
                item={{ kind: 'keyword', id: row.id }}
                version={row.version}
                label={`Own bid of ${row.text}`}
                kept={row.typedOwn}
                placeholder="base"
              />
            </td>
            <td className="px-2 text-right whitespace-nowrap">
              {row.lowest === null
                ? '—'
                : row.lowest === row.highest
                  ? money(row.lowest, account)
                  : `${money(row.lowest, account)} – ${money(row.highest, account)}`}
            </td>
            <td className="px-2 text-right">{money(row.cpc, account)}</td>
            <td className="px-2 text-right">{money(row.figures.cost, account)}</td>
            <td className="px-2 text-right">{count(row.figures.conversions)}</td>
            <td className="px-2 text-right">{money(row.figures.costPerConversion, account)}</td>
            <td className="px-2 text-right">{row.quality ?? '—'}</td>
            <td className="px-2 text-right">{percent(row.lostToRank, 0)}</td>
            <td className="px-2 text-right">{money(row.firstPage, account)}</td>
            <td className="px-2 pr-3 text-right">{money(row.top, account)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
