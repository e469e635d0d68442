import clsx from 'clsx';
import type { Schemas } from '../../api/client';
import { Choice } from '../../ui/Choice';
import { columnsOf, type ColumnsProps } from './columnsOf';
import type { ShownColumn } from './IntakeRow';

type ColumnChoice = Schemas['ColumnChoice'];

/** A column that is not read: none of the columns that a list can have. */
const leaveOut = '';

/** The same among the choices, where nothing cannot be chosen. */
const notRead = '(not read)';

/** Room for a column by what it holds; all else shares what is left. */
export function widthOf(column: ColumnChoice | undefined): string {
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

interface Props extends ColumnsProps {
  shown: readonly ShownColumn[];
  known: readonly ColumnChoice[];
  /** Room of the columns, as the style of a grid says it. */
  template: string;
}

/** What stands above the columns in the file, what each of them holds, and how sure that is. */
export function IntakeHead({ intake, shown, known, template, onColumns }: Props) {
  const hidden = intake.columns.length - shown.length;
  const setColumn = (column: number, name: string) =>
    onColumns({
      ...columnsOf(intake),
      // What moves to another column leaves the one it had.
      columns: intake.columns.map((each, other) =>
        other === column ? name : each === name ? leaveOut : each,
      ),
    });
  return (
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
            {name !== leaveOut && (
              <Confidence confidence={intake.confidence[column] ?? 0} sureFrom={intake.sureFrom} />
            )}
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
  );
}

/** How sure the guess is, said where it is worth a look. */
function Confidence({ confidence, sureFrom }: { confidence: number; sureFrom: number }) {
  if (confidence >= sureFrom) return null;
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
