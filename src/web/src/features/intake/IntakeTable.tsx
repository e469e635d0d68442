import { useQueries, useQuery } from '@tanstack/react-query';
import clsx from 'clsx';
import { answer, api, type Schemas } from '../../api/client';
import { useAccount } from '../../app/account';
import { nothing } from '../../app/format';
import { Choice } from '../../ui/Choice';
import { ChangeFlag, MatchChip } from '../../ui/Marks';
import { useRowWindow } from '../../ui/useRowWindow';

const rowHeight = 27;

/** Height of the headers with what they hold. */
const headHeight = 53;

const pageSize = 200;

type Field = Schemas['IntakeField'];

export function useFieldChoices() {
  const account = useAccount();
  return useQuery({
    queryKey: [account.id, 'intakeFields'],
    staleTime: Infinity,
    queryFn: () =>
      answer(
        api.GET('/api/accounts/{accountId}/intakes/fields', { params: { path: { accountId: account.id } } }),
      ),
  });
}

/** Room for a column by what it holds; all else shares what is left. */
const widths: Partial<Record<Field, string>> = {
  keyword: 'minmax(150px, 2fr)',
  negativeKeyword: 'minmax(150px, 2fr)',
  campaign: 'minmax(124px, 1.5fr)',
  adGroup: 'minmax(108px, 1.2fr)',
  item: '128px',
  action: '96px',
  negativeList: 'minmax(124px, 1fr)',
  finalUrl: 'minmax(124px, 1.2fr)',
  device: 'minmax(150px, 1fr)',
  matchType: '112px',
  maxCpc: '92px',
  adGroupMaxCpc: '128px',
  dailyBudget: '116px',
};

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
  const fields = useFieldChoices();
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
  const shown = intake.fields
    .map((field, column) => ({ field, column }))
    .filter(({ column }) => intake.usedColumns.includes(column));
  const hidden = intake.fields.length - shown.length;
  const template = `30px 38px ${shown.map(({ field }) => widths[field] ?? 'minmax(88px, 1fr)').join(' ')} minmax(120px, 160px)`;
  const options: { value: Field; label: string }[] = [
    { value: 'leaveOut', label: 'leave out' },
    ...(fields.data ?? []).map((choice) => ({ value: choice.field, label: choice.label })),
  ];
  const setField = (column: number, field: Field) =>
    onColumns({
      ...intake,
      // A field that moves to another column leaves the one it had.
      fields: intake.fields.map((each, other) =>
        other === column ? field : each === field && field !== 'leaveOut' ? 'leaveOut' : each,
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
          {shown.map(({ field, column }) => (
            <span role="columnheader" key={column} className="min-w-0 px-2">
              <span className="block truncate text-[12px] text-ink-3" title={intake.headers[column]}>
                {intake.headers[column] ?? `column ${column + 1}`}
              </span>
              <Choice
                label={`Column ${column + 1}, ${intake.headers[column] ?? 'no header'}`}
                value={field}
                options={options}
                onChange={(next) => setField(column, next)}
                className={clsx(
                  'max-w-full !px-2 !py-[3px] text-[12px]',
                  field === 'leaveOut' ? 'border-dashed !border-ember text-ember' : '!border-tide text-tide',
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
                {shown.map(({ field, column }) => (
                  <span role="cell" key={column} className="truncate px-2">
                    <Cell field={field} text={row.cells[column] ?? ''} row={row} />
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

const amounts: readonly Field[] = ['dailyBudget', 'maxCpc', 'adGroupMaxCpc'];

function Cell({ field, text, row }: { field: Field; text: string; row: Schemas['IntakeListRow'] }) {
  if (field === 'matchType' && row.match && row.outcome !== 'refused')
    return <MatchChip match={row.match} negative={row.kind === 'negativeKeyword'} />;
  if (field === 'keyword') return <b className="font-semibold">{text}</b>;
  if (field === 'leaveOut') return <span className="text-ink-3">{text}</span>;
  if (amounts.includes(field)) return <span className="block text-right">{text || nothing}</span>;
  return text;
}
