import clsx from 'clsx';
import { useRef, type KeyboardEvent } from 'react';
import type { Schemas } from '../../api/client';
import { useKinds } from '../../api/kinds';
import { whole } from '../../ui/format';
import { isHome } from '../../ui/home';
import { WeightMark } from '../../ui/Marks';
import { cellKey, type Cell, type Row } from './useExtensions';

type Kind = Schemas['ItemKind'];

interface Props {
  rows: readonly Row[];
  /** The kind in whose column cells are chosen. */
  kind: Kind;
  chosen: ReadonlySet<string>;
  /** The cell with the keyboard. */
  current: string;
  onChoose: (kind: Kind, keys: readonly string[]) => void;
  onCurrent: (row: Row, kind: Kind) => void;
}

/** Which extensions each level has in reach, and where they come from. Cells are chosen to add to them. */
export function CoverageTable({ rows, kind, chosen, current, onChoose, onCurrent }: Props) {
  const kinds = useKinds();
  const table = useRef<HTMLTableElement>(null);
  const columns = rows[0]?.cells.map((cell) => cell.kind) ?? [];
  const all = (column: Kind) =>
    rows.filter((row) => row.level === 'campaign').map((row) => cellKey(row, column));
  const toggle = (column: Kind, keys: readonly string[]) => {
    const before = column === kind ? [...chosen] : [];
    const every = keys.every((key) => before.includes(key));
    onChoose(
      column,
      every ? before.filter((key) => !keys.includes(key)) : [...new Set([...before, ...keys])],
    );
  };
  const keys = (event: KeyboardEvent, row: number, column: number) => {
    const by = { ArrowDown: [1, 0], ArrowUp: [-1, 0], ArrowRight: [0, 1], ArrowLeft: [0, -1] }[event.key];
    if (!by) return;
    event.preventDefault();
    const [down = 0, right = 0] = by;
    const [here, to] = [rows[row], rows[row + down]];
    const name = columns[column + right];
    if (!here || !to || !name) return;
    onCurrent(to, name);
    // A range goes down or up a column, and what it begins at belongs to it.
    if (event.shiftKey && down !== 0)
      onChoose(name, [
        ...new Set([...(name === kind ? chosen : []), cellKey(here, name), cellKey(to, name)]),
      ]);
    table.current?.querySelector<HTMLElement>(`[data-cell="${row + down} ${column + right}"]`)?.focus();
  };
  return (
    <table
      ref={table}
      className="w-full table-fixed border-collapse"
      role="grid"
      aria-label="Extensions in reach"
    >
      <thead className="sticky top-0 z-10 bg-sheet">
        <tr className="border-b border-line-strong text-left text-[12px] text-ink-2">
          <th scope="col" className="w-[22%] px-3 py-1.5 font-semibold">
            Level
          </th>
          {columns.map((column) => (
            <th key={column} scope="col" className="px-1.5 py-1">
              <button
                type="button"
                onClick={() => toggle(column, all(column))}
                title="Choose the cells of all campaigns"
                className="rounded-sm px-1.5 py-0.5 font-semibold hover:bg-plum-wash"
              >
                {kinds.title(column)}
              </button>
            </th>
          ))}
          <th scope="col" className="w-[92px] px-2 py-1.5 text-right font-semibold">
            Clicks on them
          </th>
        </tr>
      </thead>
      <tbody>
        {rows.map((row, at) => (
          <tr
            key={`${row.level} ${row.campaignId} ${row.adGroupId}`}
            className={clsx('border-b border-line-soft', row.level === 'account' && 'bg-paper')}
          >
            <th
              scope="row"
              className={clsx(
                'max-w-[260px] truncate px-3 text-left',
                row.level === 'adGroup' ? 'pl-8 font-normal' : 'font-semibold',
              )}
            >
              {row.name}
              {row.level === 'account' && <span className="ml-1.5 font-normal text-ink-3">account</span>}
            </th>
            {row.cells.map((cell, column) => {
              const key = cellKey(row, cell.kind);
              const isChosen = cell.kind === kind && chosen.has(key);
              return (
                <td key={cell.kind} className="p-[2px]" role="gridcell" aria-selected={isChosen}>
                  <button
                    type="button"
                    data-cell={`${at} ${column}`}
                    {...(key === current ? isHome : {})}
                    tabIndex={key === current ? 0 : -1}
                    aria-pressed={isChosen}
                    title={[inWords(cell), cell.says].filter(Boolean).join(': ')}
                    onFocus={() => onCurrent(row, cell.kind)}
                    onClick={() => toggle(cell.kind, [key])}
                    onKeyDown={(event) => keys(event, at, column)}
                    className={clsx(
                      'block w-full truncate rounded-sm border px-2 py-[2px] text-left',
                      cell.here > 0 ? 'bg-plum-wash font-semibold text-plum' : 'hover:bg-paper',
                      isChosen ? 'border-tide shadow-[0_0_0_1px_var(--color-tide)]' : 'border-transparent',
                    )}
                  >
                    <span className="sr-only">{`${kinds.title(cell.kind)}, ${row.name}: `}</span>
                    <InReach cell={cell} level={row.level} />
                  </button>
                </td>
              );
            })}
            <td className="px-3 text-right">{whole(row.ownClicks)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

const levels: Record<Schemas['Level'], string> = {
  account: 'account',
  campaign: 'campaign',
  adGroup: 'ad group',
  list: 'list',
};

function above(cell: Cell, level: Row['level']) {
  return cell.from.filter((from) => from.level !== level);
}

function inWords(cell: Cell): string {
  if (cell.inReach === 0) return 'none in reach';
  const parts = cell.from.map((from) => `${from.count} from ${levels[from.level]}`);
  return `${cell.here} here, ${parts.join(', ')}`;
}

function InReach({ cell, level }: { cell: Cell; level: Row['level'] }) {
  const farther = above(cell, level);
  const text = (
    <>
      {cell.here > 0 && <>{cell.here} here </>}
      {farther.map((from) => (
        <span key={from.level} className="font-normal text-ink-2">
          ↑ {from.count} {levels[from.level]}{' '}
        </span>
      ))}
      {cell.here === 0 && farther.length === 0 && <span className="text-ink-3">none</span>}
      {cell.says && <span className="ml-1 font-normal text-ink-2">{cell.says}</span>}
    </>
  );
  return cell.gap ? <WeightMark weight={cell.gap}>{text}</WeightMark> : text;
}
