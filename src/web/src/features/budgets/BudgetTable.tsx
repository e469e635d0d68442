import clsx from 'clsx';
import { useRef, type KeyboardEvent } from 'react';
import { useAccount } from '../../api/account';
import { money, percent } from '../../ui/format';
import { isHome } from '../../ui/home';
import { Tick } from '../../ui/Tick';
import type { BudgetRow } from './useBudgets';

interface Props {
  rows: readonly BudgetRow[];
  current: number;
  onCurrent: (id: number) => void;
  planned: readonly number[];
  onPlanned: (ids: number[]) => void;
  onEdit: (id: number) => void;
}

/** Campaigns with what each may spend, spends and could spend, on one scale. */
export function BudgetTable({ rows, current, onCurrent, planned, onPlanned, onEdit }: Props) {
  const account = useAccount();
  const table = useRef<HTMLTableElement>(null);
  const most = Math.max(...rows.flatMap((row) => [row.budget ?? 0, row.could, row.spends]));
  const toggle = (id: number) =>
    onPlanned(planned.includes(id) ? planned.filter((each) => each !== id) : [...planned, id]);
  const keys = (event: KeyboardEvent, at: number) => {
    const row = rows[at];
    if (!row) return;
    const next = { ArrowDown: at + 1, ArrowUp: at - 1, Home: 0, End: rows.length - 1 }[event.key];
    if (next !== undefined) {
      const to = rows[next];
      if (!to) return;
      onCurrent(to.id);
      table.current?.querySelector<HTMLElement>(`[data-campaign="${to.id}"]`)?.focus();
    } else if (event.key === ' ') toggle(row.id);
    else if (event.key === 'Enter') onEdit(row.id);
    else return;
    event.preventDefault();
  };
  return (
    <table ref={table} className="w-full border-collapse" aria-label="Budgets of campaigns">
      <thead className="sticky top-0 z-10 bg-sheet">
        <tr className="h-[29px] border-b border-line-strong text-[12px] text-ink-3">
          <th scope="col" className="w-[36px] pl-3">
            <span className="sr-only">In the plan</span>
          </th>
          <th scope="col" className="px-2 text-left font-semibold">
            Campaign
          </th>
          <th scope="col" className="px-2 text-right font-semibold">
            A day
          </th>
          <th scope="col" className="w-[26%] px-2 text-left font-semibold">
            Spends, and could spend
          </th>
          <th scope="col" className="px-2 text-right font-semibold whitespace-nowrap">
            Ran out at
          </th>
          <th scope="col" className="px-2 text-right font-semibold whitespace-nowrap">
            Lost to budget
          </th>
          <th scope="col" className="px-2 text-right font-semibold whitespace-nowrap">
            Lost to rank
          </th>
          <th scope="col" className="px-2 text-right font-semibold whitespace-nowrap">
            Cost / conv.
          </th>
          <th scope="col" className="px-3 text-right font-semibold whitespace-nowrap">
            Next conv. for
          </th>
        </tr>
      </thead>
      <tbody>
        {rows.map((row, at) => (
          <tr
            key={row.id}
            className={clsx('h-[27px] border-b border-line-soft', row.id === current && 'bg-plum-wash')}
            onClick={() => onCurrent(row.id)}
          >
            <td className="w-[36px] pr-2 pl-3 leading-none">
              <Tick
                label={`Plan ${row.name}`}
                checked={planned.includes(row.id)}
                onChange={() => toggle(row.id)}
              />
            </td>
            <th scope="row" className="max-w-[220px] p-0 text-left">
              <button
                type="button"
                data-campaign={row.id}
                {...(row.id === current ? isHome : {})}
                tabIndex={row.id === current ? 0 : -1}
                aria-current={row.id === current}
                title={row.name}
                className={clsx(
                  'block w-full truncate px-2 py-1 text-left font-semibold',
                  row.isPaused && 'text-ink-3',
                )}
                onFocus={() => onCurrent(row.id)}
                onKeyDown={(event) => keys(event, at)}
              >
                {row.isPaused ? '○ ' : ''}
                {row.name}
              </button>
            </th>
            <td className="px-2 text-right font-semibold">{money(row.budget, account)}</td>
            <td className="px-2">
              <Spending row={row} most={most} />
            </td>
            <td className="px-2 text-right" title={row.ranOut}>
              {row.ranOutAt ?? '—'}
            </td>
            <td className="px-2 text-right">{percent(row.lostToBudget, 0)}</td>
            <td className="px-2 text-right">{percent(row.lostToRank, 0)}</td>
            <td className="px-2 text-right">{money(row.costPerConversion, account)}</td>
            <td
              className="px-3 text-right"
              title={
                row.nextConversion === null
                  ? 'More money would not be spent, or nothing was sold yet.'
                  : 'What another conversion costs with a little more to spend.'
              }
            >
              {money(row.nextConversion, account)}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** Solid: spent. Hatched: what searches would have cost that were missed. The bar across: the budget. */
function Spending({ row, most }: { row: BudgetRow; most: number }) {
  const account = useAccount();
  const part = (amount: number) => `${most > 0 ? (amount / most) * 100 : 0}%`;
  const words = `spends ${money(row.spends, account)} a day, could spend ${money(row.could, account)}`;
  return (
    <span className="relative block h-[14px] rounded-sm bg-sunk" title={words}>
      <span className="sr-only">{words}</span>
      <span
        aria-hidden
        className="absolute inset-y-0 left-0 rounded-l-sm bg-plum"
        style={{ width: part(row.spends) }}
      />
      <span
        aria-hidden
        className="bg-missed absolute inset-y-0"
        style={{ left: part(row.spends), width: part(row.could - row.spends) }}
      />
      {row.budget !== null && (
        <span
          aria-hidden
          className="absolute -inset-y-[2px] w-[2px] bg-ink"
          style={{ left: `calc(${part(row.budget)} - 1px)` }}
        />
      )}
    </span>
  );
}
