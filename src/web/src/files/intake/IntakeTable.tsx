import { keepPreviousData, useQueries, useQuery } from '@tanstack/react-query';
import clsx from 'clsx';
import { useRef } from 'react';
import { answer, api, type Schemas } from '../../api/client';
import { useAccount } from '../../api/account';
import { nothing } from '../../ui/format';
import { Choice } from '../../ui/Choice';
import { isHome } from '../../ui/home';
import { ChangeFlag, MatchChip } from '../../ui/Marks';
import { useRowWindow } from '../../ui/rows/useRowWindow';
import { columnsOf } from './columnsOf';
import { MendCell } from './MendCell';
import { useCellCursor, type Then } from './useCellCursor';

const rowHeight = 27;

/** Height of the headers with what they hold. */
const headHeight = 53;

const pageSize = 200;

/** From here on a guess need not be looked at. */
const sure = 80;

type ColumnChoice = Schemas['ColumnChoice'];

/** A column that is not read: none of the columns that a list can have. */
const leaveOut = '';

/** The same among the choices, where nothing cannot be chosen. */
const notRead = '(not read)';

export function useColumnChoices() {
  const account = useAccount();
  return useQuery({
    queryKey: [account.id, 'intakeColumns'],
    staleTime: Infinity,
    queryFn: () =>
      answer(
        api.GET('/api/accounts/{accountId}/intakes/columns', { params: { path: { accountId: account.id } } }),
      ),
  });
}

/** Room for a column by what it holds; all else shares what is left. */
function widthOf(column: ColumnChoice | undefined): string {
  if (!column) return 'minmax(88px, 1fr)';
  if (column.isPlace && column.form === null) return 'minmax(116px, 1.3fr)';
  if (column.isName) return 'minmax(130px, 2fr)';
  switch (column.form) {
    case 'amount':
      return `${column.label.length * 7 + 48}px`;
    case 'choice':
    case 'day':
      return `${Math.max(112, column.label.length * 7 + 48)}px`;
    case null:
      return '116px';
    default:
      return 'minmax(108px, 1.2fr)';
  }
}

const marks: Record<Schemas['IntakeOutcome'], React.ReactNode> = {
  new: <ChangeFlag change="new" />,
  edit: <ChangeFlag change="edited" />,
  same: (
    <span role="img" aria-label="there already">
      =
    </span>
  ),
  twice: (
    <b className="text-brick" role="img" aria-label="left out">
      ■
    </b>
  ),
  refused: (
    <b className="text-brick" role="img" aria-label="left out">
      ■
    </b>
  ),
  removed: <ChangeFlag change="removed" />,
  notThere: (
    <span role="img" aria-label="not there" className="text-ink-3">
      –
    </span>
  ),
};

const rowLook: Record<Schemas['IntakeOutcome'], string> = {
  new: 'bg-sheet',
  edit: 'bg-sheet',
  same: 'bg-sheet text-ink-3',
  twice: 'bg-brick-wash',
  refused: 'bg-brick-wash',
  removed: 'bg-sheet text-ink-3 line-through',
  notThere: 'bg-sheet text-ink-3',
};

/** Which rows of a list are shown. */
export type IntakeShown = 'all' | 'new' | 'changed' | 'same' | 'leftOut' | 'removed';

/** Which outcomes a filter lets through. */
export const outcomesOf: Record<IntakeShown, readonly Schemas['IntakeOutcome'][]> = {
  all: ['new', 'edit', 'same', 'twice', 'refused', 'removed', 'notThere'],
  new: ['new'],
  changed: ['edit'],
  same: ['same'],
  leftOut: ['twice', 'refused', 'notThere'],
  removed: ['removed'],
};

/** Rows of the list that a filter lets through. */
export function rowsOf(intake: Schemas['IntakeView'], shown: IntakeShown): number {
  return intake.rows
    .filter((each) => outcomesOf[shown].includes(each.outcome))
    .reduce((sum, each) => sum + each.count, 0);
}

interface Props {
  intake: Schemas['IntakeView'];
  shown: IntakeShown;
  onColumns: (columns: Schemas['IntakeColumns']) => void;
  onMend: (mend: Schemas['IntakeMend']) => Promise<void>;
}

/** The list as it stands in the file, with a name for each column and what becomes of each row; cells are mended in place. */
export function IntakeTable({ intake, shown: filter, onColumns, onMend }: Props) {
  const account = useAccount();
  const known = useColumnChoices().data ?? [];
  const choiceOf = (name: string) => known.find((choice) => choice.name === name);
  const total = rowsOf(intake, filter);
  const { scroller, rows, first, last, bodyHeight, scrollTo } = useRowWindow({
    count: total,
    rowHeight,
    headHeight,
  });
  const range = { first: Math.floor(first / pageSize), last: Math.floor(last / pageSize) };
  const pages = Array.from({ length: range.last - range.first + 1 }, (_, place) => range.first + place);
  const results = useQueries({
    queries: pages.map((page) => ({
      queryKey: [account.id, 'intakeRows', intake.id, filter, page],
      placeholderData: keepPreviousData,
      queryFn: () =>
        answer(
          api.GET('/api/accounts/{accountId}/intakes/{intakeId}/rows', {
            params: {
              path: { accountId: account.id, intakeId: intake.id },
              query: { offset: page * pageSize, limit: pageSize, shown: filter },
            },
          }),
        ),
    })),
  });
  const rowAt = (place: number) => {
    const page = Math.floor(place / pageSize);
    return results[page - range.first]?.data?.[place - page * pageSize];
  };
  // Columns with nothing in them would only push the others out of sight.
  const shown = intake.columns
    .map((name, column) => ({ name, column }))
    .filter(({ column }) => intake.usedColumns.includes(column));
  const hidden = intake.columns.length - shown.length;
  const template = `30px 44px ${shown.map(({ name }) => widthOf(choiceOf(name))).join(' ')} minmax(150px, 230px)`;
  const grid = useRef<HTMLDivElement>(null);
  const cells = useCellCursor({
    grid,
    total,
    columns: shown.length,
    page: () => Math.max(1, Math.floor((scroller.current?.clientHeight ?? 400) / rowHeight) - 3),
    scrollTo,
  });
  const { active, editing, setEditing } = cells;
  const setColumn = (column: number, name: string) =>
    onColumns({
      ...columnsOf(intake),
      // What moves to another column leaves the one it had.
      columns: intake.columns.map((each, other) =>
        other === column ? name : each === name ? leaveOut : each,
      ),
    });
  const mend = (row: Schemas['IntakeListRow'], place: number, text: string, then: Then) => {
    setEditing(false);
    grid.current?.focus();
    if (text !== (row.cells[place] ?? '')) void onMend({ rowNumber: row.rowNumber, place, text });
    cells.goOn(then);
  };
  const contradictions = new Map(intake.contradictions.map((each) => [each.otherRow, each]));

  return (
    <div
      ref={grid}
      {...isHome}
      role="grid"
      aria-label="Rows of the list"
      aria-rowcount={total + 1}
      aria-colcount={shown.length + 3}
      aria-activedescendant={total > 0 ? `intake-${active.place}-${active.column}` : undefined}
      tabIndex={0}
      className="group/grid flex min-h-0 flex-1 flex-col outline-none"
      onKeyDown={cells.onKeyDown}
    >
      <div ref={scroller} className="min-h-0 flex-1 overflow-auto">
        <div
          className="min-w-full"
          style={{ width: shown.length > 7 ? 30 + 44 + 190 + shown.length * 106 : undefined }}
        >
          <div
            role="row"
            aria-rowindex={1}
            className="sticky top-0 z-10 grid items-end border-b border-line-strong bg-sheet py-1.5"
            style={{ gridTemplateColumns: template }}
          >
            <span
              role="columnheader"
              aria-label="Outcome"
              className="sticky left-0 z-[1] h-full self-stretch bg-sheet"
            />
            <span
              role="columnheader"
              className="sticky left-[30px] z-[1] h-full self-stretch bg-sheet px-2 pt-6 text-[11.5px] text-ink-3"
            >
              Row
            </span>
            {shown.map(({ name, column }) => (
              <span role="columnheader" key={column} className="min-w-0 px-2">
                <span className="flex justify-between gap-1 text-[12px] text-ink-3">
                  <span className="truncate" title={intake.headers[column]}>
                    {intake.headers[column] ?? `column ${column + 1}`}
                  </span>
                  <Confidence named={name !== leaveOut} confidence={intake.confidence[column] ?? 0} />
                </span>
                <ColumnChooser
                  label={`Column ${column + 1}, ${intake.headers[column] ?? 'no header'}`}
                  name={name}
                  known={known}
                  onChoose={(next) => setColumn(column, next)}
                />
              </span>
            ))}
            <span
              role="columnheader"
              className="sticky right-0 z-[1] h-full self-stretch border-l border-line-soft bg-sheet px-2 pt-6 text-[11.5px] text-ink-3"
            >
              {hidden > 0 ? `Note · ${hidden} empty columns not shown` : 'Note'}
            </span>
          </div>
          {total === 0 && (
            <p className="p-4 text-ink-2">
              {filter === 'all'
                ? 'There are no rows in it.'
                : 'No row of this kind. Choose another count on the right.'}
            </p>
          )}
          <div
            role="rowgroup"
            className="relative"
            style={{ height: bodyHeight }}
            onDoubleClick={() => setEditing(true)}
            onClick={(event) => {
              const cell = (event.target as HTMLElement).closest<HTMLElement>('[data-cell]');
              if (!cell || editing) return;
              cells.setActive({ place: Number(cell.dataset.place), column: Number(cell.dataset.cell) });
              grid.current?.focus({ preventScroll: true });
            }}
          >
            {rows.map((item) => {
              const row = rowAt(item.index);
              if (!row) return null;
              const isActive = item.index === active.place;
              const contradiction = contradictions.get(row.rowNumber);
              return (
                <div
                  key={item.slot}
                  role="row"
                  aria-rowindex={item.index + 2}
                  className={clsx(
                    'absolute left-0 grid w-full items-center border-b border-line-soft',
                    rowLook[row.outcome],
                    isActive && 'z-[2]',
                  )}
                  style={{ top: item.start, height: rowHeight, gridTemplateColumns: template }}
                >
                  <span role="gridcell" className="sticky left-0 z-[1] h-full bg-inherit pt-1 text-center">
                    {marks[row.outcome]}
                  </span>
                  <span
                    role="gridcell"
                    className="sticky left-[30px] z-[1] h-full bg-inherit px-2 pt-1 text-[12px] text-ink-3"
                  >
                    {row.rowNumber}
                  </span>
                  {shown.map(({ name, column }, place) => {
                    const here = isActive && active.column === place;
                    return (
                      <span
                        role="gridcell"
                        key={column}
                        id={`intake-${item.index}-${place}`}
                        data-place={item.index}
                        data-cell={place}
                        aria-invalid={row.problemPlace === column || undefined}
                        className={clsx(
                          'flex h-full min-w-0 items-center px-2',
                          row.problemPlace === column && 'font-semibold text-brick underline decoration-wavy',
                          here &&
                            'rounded-[3px] outline-2 -outline-offset-2 outline-line-strong group-focus/grid:outline-tide',
                        )}
                      >
                        {here && editing ? (
                          <MendCell
                            text={row.cells[column] ?? ''}
                            label={`Row ${row.rowNumber}, ${choiceOf(name)?.label ?? `column ${column + 1}`}`}
                            onDone={(text, then) => mend(row, column, text, then)}
                            onLeave={() => {
                              setEditing(false);
                              grid.current?.focus();
                            }}
                          />
                        ) : (
                          <span className="min-w-0 flex-1 truncate" title={row.cells[column]}>
                            {row.before[column] != null && (
                              <>
                                <s className="text-ink-3">{row.before[column] || nothing}</s>
                                <span aria-label="becomes"> → </span>
                              </>
                            )}
                            <Cell column={choiceOf(name)} text={row.cells[column] ?? ''} row={row} />
                          </span>
                        )}
                      </span>
                    );
                  })}
                  <span
                    role="gridcell"
                    className={clsx(
                      'sticky right-0 z-[1] flex h-full items-center border-l border-line-soft bg-inherit px-2 text-[12.5px]',
                      contradiction ? 'text-ochre' : 'text-ink-2',
                    )}
                    title={row.reason ?? undefined}
                  >
                    <span className="truncate">
                      {contradiction
                        ? `${contradiction.field} ${contradiction.other}: row ${contradiction.firstRow} says ${contradiction.first}, and holds`
                        : noteOf(row)}
                    </span>
                  </span>
                </div>
              );
            })}
          </div>
        </div>
      </div>
    </div>
  );
}

function noteOf(row: Schemas['IntakeListRow']) {
  if (row.reason) return row.reason;
  switch (row.outcome) {
    case 'same':
      return 'already there';
    case 'edit':
      return 'changes what is there';
    case 'removed':
      return 'takes it away';
    default:
      return '';
  }
}

/** How sure the guess is, said where it is worth a look. */
function Confidence({ named, confidence }: { named: boolean; confidence: number }) {
  if (!named || confidence >= sure) return null;
  return (
    <span className="shrink-0 text-ochre" title="Guessed from the header and from what stands below it">
      ◆ {confidence}% sure
    </span>
  );
}

interface ChooserProps {
  label: string;
  name: string;
  known: readonly ColumnChoice[];
  onChoose: (name: string) => void;
}

/** What a column holds. */
function ColumnChooser({ label, name, known, onChoose }: ChooserProps) {
  return (
    <Choice
      label={label}
      value={name || notRead}
      options={[
        { value: notRead, label: 'leave out' },
        ...known.map((choice) => ({ value: choice.name, label: choice.label })),
      ]}
      onChange={(next) => onChoose(next === notRead ? leaveOut : next)}
      className={clsx(
        'max-w-full !px-2 !py-[3px] text-[12px]',
        name === leaveOut ? 'border-dashed !border-ember text-ember' : '!border-tide text-tide',
      )}
    />
  );
}

interface CellProps {
  column: ColumnChoice | undefined;
  text: string;
  row: Schemas['IntakeListRow'];
}

function Cell({ column, text, row }: CellProps) {
  if (!column) return <span className="text-ink-3">{text}</span>;
  if (column.name === 'matchType' && row.match && row.outcome !== 'refused')
    return <MatchChip match={row.match} negative={row.kind === 'negativeKeyword'} />;
  if (column.isName && !column.isPlace) return <b className="font-semibold">{text}</b>;
  if (column.form === 'amount' && row.before.length === 0)
    return <span className="block text-right">{text || nothing}</span>;
  return text;
}
