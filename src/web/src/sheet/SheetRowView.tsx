import clsx from 'clsx';
import { ChevronDown, ChevronRight } from 'lucide-react';
import { memo, useLayoutEffect, useRef, useState, type ReactNode } from 'react';
import type { AccountSummary, SheetRow } from '../api/client';
import { useKinds } from '../api/kinds';
import { ChangeFlag, ProposedFlag } from '../ui/Marks';
import type { Column } from './views/columns';

export const rowHeight = 27;

/** Height of the titles above the rows. */
export const headHeight = 28;

/** The grid of a row: the flag, then the columns. */
export function templateOf(columns: readonly Column[]) {
  return `30px ${columns.map((column) => (column.grows ? `minmax(${column.width}px,1fr)` : `${column.width}px`)).join(' ')}`;
}

/** Width under which the columns do not shrink; narrower sheets scroll sideways. */
export function leastWidth(columns: readonly Column[]) {
  return 30 + columns.reduce((sum, column) => sum + column.width, 0);
}

/** How far a row stands to the right in the outline, by what it stands in. */
function indentOf(row: SheetRow, holds: boolean) {
  if (row.level === 'account') return 0;
  return row.isHeading || (row.level === 'campaign' && holds) ? 18 : 40;
}

/** Its depth in the outline, from 1. */
function depthOf(row: SheetRow) {
  if (row.level === 'account') return 1;
  return row.isHeading || row.kind === 'adGroup' ? 2 : 3;
}

interface Props {
  /** None while it is on its way. */
  row: SheetRow | undefined;
  place: number;
  top: number;
  account: AccountSummary;
  columns: readonly Column[];
  outline: boolean;
  folded: boolean;
  selected: boolean;
  activeColumn: number | null;
  /** First and last column of the cells that are marked for copying, when the row is among them. */
  block: readonly [number, number] | null;
  editor: ReactNode;
  onFold: (row: SheetRow) => void;
}

export const SheetRowView = memo(function SheetRowView(props: Props) {
  const {
    row,
    place,
    top,
    account,
    columns,
    outline,
    folded,
    selected,
    activeColumn,
    block,
    editor,
    onFold,
  } = props;
  const isCampaign = row?.kind === 'campaign';
  const isActive = activeColumn !== null;
  return (
    <div
      role="row"
      id={`row-${place}`}
      aria-rowindex={place + 2}
      aria-selected={selected}
      aria-level={outline && row ? depthOf(row) : undefined}
      aria-expanded={outline && row?.inside != null ? !folded : undefined}
      aria-busy={row === undefined}
      data-place={row && place}
      className={clsx(
        'absolute left-0 grid w-full items-center border-b border-line-soft',
        // What opens in a cell needs room beyond the row.
        isActive ? 'z-[2]' : '[contain:strict]',
        selected ? 'bg-plum-wash' : isCampaign && outline ? 'bg-paper' : 'bg-sheet hover:bg-[#fbf7ee]',
        row?.isHeading && 'text-ink-2',
        row?.change === 'removed' && 'text-ink-3 line-through',
        isCampaign && outline && 'font-head text-[14px] font-semibold',
      )}
      style={{ top, height: rowHeight, gridTemplateColumns: templateOf(columns) }}
    >
      <div
        role="gridcell"
        aria-colindex={1}
        className="sticky left-0 z-[1] h-full bg-inherit pt-1 text-center"
      >
        {row?.proposed && row.proposed !== 'none' ? (
          <ProposedFlag change={row.proposed} />
        ) : (
          row && <ChangeFlag change={row.change} />
        )}
      </div>
      {columns.map((column, number) => (
        <div
          key={column.key}
          role="gridcell"
          aria-colindex={number + 2}
          id={`cell-${place}-${number}`}
          data-column={number}
          className={clsx(
            'flex h-full items-center overflow-hidden px-2 whitespace-nowrap',
            column.numeric && 'justify-end font-body text-base font-normal',
            number > 0 && !column.numeric && 'font-body text-base font-normal',
            column.key === 'dailyBudget' && 'font-semibold',
            block && number >= block[0] && number <= block[1] && 'bg-tide-wash',
            activeColumn === number &&
              'rounded-[3px] outline-2 -outline-offset-2 outline-line-strong group-focus/grid:outline-tide',
            activeColumn === number && 'relative overflow-visible',
            number === 0 && 'sticky left-[30px] z-[1] bg-inherit',
          )}
        >
          {activeColumn === number && editor ? (
            editor
          ) : row === undefined ? null : number === 0 ? (
            <Whole of={activeColumn === 0 ? row.name : null}>
              <Name row={row} outline={outline} folded={folded} onFold={onFold} />
            </Whole>
          ) : row.isHeading ? null : (
            <Whole of={activeColumn === number ? (column.full?.(row) ?? column.text(row, account)) : null}>
              {column.cell(row, account)}
            </Whole>
          )}
        </div>
      ))}
    </div>
  );
});

/** A cell that has no room for its text shows all of it while the cursor is on it. */
function Whole({ of, children }: { of: string | null; children: ReactNode }) {
  const content = useRef<HTMLSpanElement>(null);
  const [cut, setCut] = useState(false);
  useLayoutEffect(() => {
    const parts = content.current ? [content.current, ...content.current.querySelectorAll('*')] : [];
    setCut(
      of !== null && parts.some((part) => part.scrollWidth > part.clientWidth + 1 && part.clientWidth > 0),
    );
  }, [of]);
  return (
    <>
      <span ref={content} className="block min-w-0 flex-[0_1_auto] truncate">
        {children}
      </span>
      {cut && of && (
        <span
          aria-hidden
          data-whole
          className="pointer-events-none absolute top-full left-0 z-30 w-max max-w-[min(520px,60vw)] min-w-full rounded-b-[3px] bg-plum-deep px-2 py-1 text-left font-body text-[12.5px] font-normal break-words whitespace-normal text-white no-underline"
        >
          {of}
        </span>
      )}
    </>
  );
}

/** What tells a page from the others of its site. */
const pathOf = (address: string) => address.replace(/^https?:\/\/[^/]*/, '') || '/';

interface NameProps extends Pick<Props, 'outline' | 'folded' | 'onFold'> {
  row: SheetRow;
}

function Name({ row, outline, folded, onFold }: NameProps) {
  const kind = useKinds().of(row.kind);
  return (
    <span
      className={clsx(
        'flex min-w-0 items-center gap-1',
        row.kind === 'adGroup' && outline && 'font-semibold',
        row.values.state === 'paused' && 'text-ink-3',
      )}
      style={outline ? { paddingLeft: indentOf(row, kind.holds != null) } : undefined}
    >
      {outline && row.inside != null && (
        <button
          type="button"
          tabIndex={-1}
          aria-label={folded ? `Unfold ${row.name}` : `Fold ${row.name}`}
          className="-ml-1 shrink-0 text-ink-3"
          onClick={(event) => {
            event.stopPropagation();
            onFold(row);
          }}
        >
          {folded ? <ChevronRight size={14} /> : <ChevronDown size={14} />}
        </button>
      )}
      {row.isHeading && <span className="mr-1 text-ink-3">{row.inside?.toLocaleString('en-GB')}</span>}
      {!row.isHeading && kind.fields.find((field) => field.isName)?.form === 'lines' && (
        <span className="text-ink-3">{kind.noun.charAt(0).toUpperCase() + kind.noun.slice(1)}</span>
      )}
      {row.values.state === 'paused' && (
        <span
          role="img"
          aria-label="paused"
          className="inline-block size-2 shrink-0 rounded-full border border-ink-3"
        />
      )}
      <span className="truncate" title={row.name}>
        {row.name}
      </span>
      {outline && kind.adForm && typeof row.values.landingPage === 'string' && (
        <span className="max-w-28 shrink-0 truncate text-ink-3" title={row.values.landingPage}>
          → {pathOf(row.values.landingPage)}
        </span>
      )}
    </span>
  );
}
