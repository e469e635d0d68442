import clsx from 'clsx';
import type { CSSProperties } from 'react';
import type { Schemas } from '../../api/client';
import { nothing } from '../../ui/format';
import { ChangeFlag, MatchChip } from '../../ui/Marks';
import { MendCell } from './MendCell';
import type { Then } from './useCellCursor';

type ColumnChoice = Schemas['ColumnChoice'];

/** A column of the list that is drawn, with its place in the file. */
export interface ShownColumn {
  name: string;
  column: number;
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

interface Props {
  row: Schemas['IntakeListRow'];
  place: number;
  style: CSSProperties;
  shown: readonly ShownColumn[];
  choiceOf: (name: string) => ColumnChoice | undefined;
  /** The cell under the cursor; none in other rows. */
  activeColumn: number | null;
  editing: boolean;
  contradiction: Schemas['IntakeContradiction'] | undefined;
  onMend: (column: number, text: string, then: Then) => void;
  onLeave: () => void;
}

/** A row of the list: what becomes of it, its cells, and why. */
export function IntakeRow({
  row,
  place: index,
  style,
  shown,
  choiceOf,
  activeColumn,
  editing,
  contradiction,
  onMend,
  onLeave,
}: Props) {
  return (
    <div
      role="row"
      aria-rowindex={index + 2}
      className={clsx(
        'absolute left-0 grid w-full items-center border-b border-line-soft',
        rowLook[row.outcome],
        activeColumn !== null && 'z-[2]',
      )}
      style={style}
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
        const here = activeColumn === place;
        return (
          <span
            role="gridcell"
            key={column}
            id={`intake-${index}-${place}`}
            data-place={index}
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
                onDone={(text, then) => onMend(column, text, then)}
                onLeave={onLeave}
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
