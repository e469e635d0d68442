import { useQueries, useQuery } from '@tanstack/react-query';
import clsx from 'clsx';
import { answer, api, type Schemas } from '../../api/client';
import { useAccount } from '../../api/account';
import { nothing } from '../../ui/format';
import { Choice } from '../../ui/Choice';
import { ChangeFlag, MatchChip } from '../../ui/Marks';
import { useRowWindow } from '../../ui/rows/useRowWindow';

const rowHeight = 27;

/** Height of the headers with what they hold. */
const headHeight = 53;

const pageSize = 200;

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
  if (column.isName) return 'minmax(150px, 2fr)';
  switch (column.form) {
    case 'amount':
      return `${Math.max(92, column.label.length * 8)}px`;
    case 'choice':
    case 'day':
      return `${Math.max(112, column.label.length * 8)}px`;
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
  new: '',
  edit: '',
  same: 'text-ink-3',
  twice: 'bg-brick-wash',
  refused: 'bg-brick-wash',
  removed: 'text-ink-3 line-through',
  notThere: 'text-ink-3',
};

interface Props {
  intake: Schemas['IntakeView'];
  onColumns: (columns: Schemas['IntakeColumns']) => void;
}

/** The list as it stands in the file, with a name for each column and what becomes of each row. */
export function IntakeTable({ intake, onColumns }: Props) {
  const account = useAccount();
  const known = useColumnChoices().data ?? [];
  const choiceOf = (name: string) => known.find((choice) => choice.name === name);
  const total = intake.counts.length === 0 ? 0 : Math.max(0, intake.rowsRead - (intake.hasHeader ? 1 : 0));
  const { scroller, rows, first, last, bodyHeight } = useRowWindow({ count: total, rowHeight, headHeight });
  const range = { first: Math.floor(first / pageSize), last: Math.floor(last / pageSize) };
  const pages = Array.from({ length: range.last - range.first + 1 }, (_, place) => range.first + place);
  const results = useQueries({
    queries: pages.map((page) => ({
      queryKey: [account.id, 'intakeRows', intake.id, page],
      queryFn: () =>
        answer(
          api.GET('/api/accounts/{accountId}/intakes/{intakeId}/rows', {
            params: {
              path: { accountId: account.id, intakeId: intake.id },
              query: { offset: page * pageSize, limit: pageSize },
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
  const template = `30px 38px ${shown.map(({ name }) => widthOf(choiceOf(name))).join(' ')} minmax(120px, 160px)`;
  const options = [
    { value: notRead, label: 'leave out' },
    ...known.map((choice) => ({ value: choice.name, label: choice.label })),
  ];
  const setColumn = (column: number, name: string) =>
    onColumns({
      ...intake,
      // What moves to another column leaves the one it had.
      columns: intake.columns.map((each, other) =>
        other === column ? name : each === name ? leaveOut : each,
      ),
    });

  return (
    <div
      ref={scroller}
      className="min-h-0 flex-1 overflow-auto"
      tabIndex={0}
      role="region"
      aria-label="Rows of the list"
    >
      <div
        role="table"
        aria-label="Rows of the list"
        aria-rowcount={total + 1}
        className="min-w-full"
        style={{ width: shown.length > 7 ? 30 + 38 + 160 + shown.length * 118 : undefined }}
      >
        <div
          role="row"
          className="sticky top-0 z-10 grid items-end border-b border-line-strong bg-sheet py-1.5"
          style={{ gridTemplateColumns: template }}
        >
          <span role="columnheader" aria-label="Outcome" />
          <span role="columnheader" className="px-2 text-[11.5px] text-ink-3">
            Row
          </span>
          {shown.map(({ name, column }) => (
            <span role="columnheader" key={column} className="min-w-0 px-2">
              <span className="block truncate text-[12px] text-ink-3" title={intake.headers[column]}>
                {intake.headers[column] ?? `column ${column + 1}`}
              </span>
              <Choice
                label={`Column ${column + 1}, ${intake.headers[column] ?? 'no header'}`}
                value={name || notRead}
                options={options}
                onChange={(next) => setColumn(column, next === notRead ? leaveOut : next)}
                className={clsx(
                  'max-w-full !px-2 !py-[3px] text-[12px]',
                  name === leaveOut ? 'border-dashed !border-ember text-ember' : '!border-tide text-tide',
                )}
              />
            </span>
          ))}
          <span role="columnheader" className="px-2 text-[11.5px] text-ink-3">
            {hidden > 0 ? `Note · ${hidden} empty columns not shown` : 'Note'}
          </span>
        </div>
        <div role="rowgroup" className="relative" style={{ height: bodyHeight }}>
          {rows.map((item) => {
            const row = rowAt(item.index);
            if (!row) return null;
            return (
              <div
                key={item.slot}
                role="row"
                className={clsx(
                  'absolute left-0 grid w-full items-center border-b border-line-soft',
                  rowLook[row.outcome],
                )}
                style={{ top: item.start, height: rowHeight, gridTemplateColumns: template }}
              >
                <span role="cell" className="text-center">
                  {marks[row.outcome]}
                </span>
                <span role="cell" className="px-2 text-[12px] text-ink-3">
                  {row.rowNumber}
                </span>
                {shown.map(({ name, column }) => (
                  <span role="cell" key={column} className="truncate px-2">
                    <Cell column={choiceOf(name)} text={row.cells[column] ?? ''} row={row} />
                  </span>
                ))}
                <span
                  role="cell"
                  className="truncate px-2 text-[12.5px] text-ink-2"
                  title={row.reason ?? undefined}
                >
                  {row.reason ??
                    (row.outcome === 'same'
                      ? 'already there'
                      : row.outcome === 'edit'
                        ? 'changes what is there'
                        : row.outcome === 'removed'
                          ? 'takes it away'
                          : '')}
                </span>
              </div>
            );
          })}
        </div>
      </div>
    </div>
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
  if (column.form === 'amount') return <span className="block text-right">{text || nothing}</span>;
  return text;
}
