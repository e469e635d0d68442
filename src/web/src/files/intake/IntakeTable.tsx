import { keepPreviousData, useQueries } from '@tanstack/react-query';
import { useRef } from 'react';
import { answer, api, type Schemas } from '../../api/client';
import { useAccount } from '../../api/account';
import { isHome } from '../../ui/home';
import { useRowWindow } from '../../ui/rows/useRowWindow';
import type { ColumnsProps } from './columnsOf';
import { IntakeHead, widthOf } from './IntakeHead';
import { IntakeRow } from './IntakeRow';
import { rowsOf, type IntakeShown } from './intakeShown';
import { useCellCursor, type Then } from './useCellCursor';
import { useColumnChoices } from './useColumnChoices';

const rowHeight = 27;

/** Height of the headers with what they hold. */
const headHeight = 53;

const pageSize = 200;

interface Props extends ColumnsProps {
  shown: IntakeShown;
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
          <IntakeHead intake={intake} shown={shown} known={known} template={template} onColumns={onColumns} />
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
              return (
                <IntakeRow
                  key={item.slot}
                  row={row}
                  place={item.index}
                  style={{ top: item.start, height: rowHeight, gridTemplateColumns: template }}
                  shown={shown}
                  choiceOf={choiceOf}
                  activeColumn={isActive ? active.column : null}
                  editing={isActive && editing}
                  contradiction={contradictions.get(row.rowNumber)}
                  onMend={(column, text, then) => mend(row, column, text, then)}
                  onLeave={() => {
                    setEditing(false);
                    grid.current?.focus();
                  }}
                />
              );
            })}
          </div>
        </div>
      </div>
    </div>
  );
}
