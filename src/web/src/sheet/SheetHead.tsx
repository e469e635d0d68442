import { ArrowDown, ArrowUp } from 'lucide-react';
import type { PointerEvent } from 'react';
import type { Column } from './views/columns';
import type { SheetQuery } from './sheetQuery';
import { templateOf } from './SheetRowView';

/** Makes a column as wide as said; none for as wide as usual. */
export type OnWidth = (column: string, width: number | null) => void;

interface Props {
  columns: readonly Column[];
  query: SheetQuery;
  onSort: (column: Column) => void;
  onWidth: OnWidth;
}

/** The titles of the columns; in a flat list they sort. */
export function SheetHead({ columns, query, onSort, onWidth }: Props) {
  return (
    <div
      role="row"
      aria-rowindex={1}
      className="sticky top-0 z-10 grid border-b border-line-strong bg-sheet"
      style={{ gridTemplateColumns: templateOf(columns) }}
    >
      <div role="columnheader" aria-colindex={1} aria-label="Change" className="sticky left-0 bg-sheet" />
      {columns.map((column, place) => (
        <div
          key={column.key}
          role="columnheader"
          aria-colindex={place + 2}
          aria-sort={sortOf(query, column)}
          className={`relative px-2 py-[5px] text-[11.5px] font-semibold whitespace-nowrap text-ink-3 ${column.numeric ? 'text-right' : ''} ${place === 0 ? 'sticky left-[30px] z-[1] bg-sheet' : ''}`}
        >
          {query.kind !== null && column.sort ? (
            <button
              type="button"
              className="max-w-full truncate rounded-sm font-semibold hover:text-ink"
              onClick={() => onSort(column)}
            >
              {column.title}
              {query.sort === column.sort &&
                (query.descending ? (
                  <ArrowDown size={11} className="inline" aria-hidden />
                ) : (
                  <ArrowUp size={11} className="inline" aria-hidden />
                ))}
            </button>
          ) : (
            <span className="block truncate">{column.title}</span>
          )}
          <Edge column={column} onWidth={onWidth} />
        </div>
      ))}
    </div>
  );
}

function sortOf(query: SheetQuery, column: Column) {
  if (query.kind === null || !column.sort) return undefined;
  if (query.sort !== column.sort) return 'none';
  return query.descending ? 'descending' : 'ascending';
}

/** The edge of a column is pulled; twice clicked, the column is as usual. */
function Edge({ column, onWidth }: { column: Column; onWidth: OnWidth }) {
  const begin = (event: PointerEvent<HTMLSpanElement>) => {
    const edge = event.currentTarget;
    const from = event.clientX;
    const width = edge.parentElement?.getBoundingClientRect().width ?? column.width;
    edge.setPointerCapture(event.pointerId);
    const move = (moved: globalThis.PointerEvent) => onWidth(column.key, width + moved.clientX - from);
    edge.addEventListener('pointermove', move);
    edge.addEventListener('lostpointercapture', () => edge.removeEventListener('pointermove', move), {
      once: true,
    });
  };
  return (
    <span
      aria-hidden
      data-edge={column.key}
      title="Pull to make the column wider; click twice for its usual width"
      className="absolute top-0 right-0 h-full w-[7px] cursor-col-resize border-r border-transparent hover:border-line-strong"
      onPointerDown={begin}
      onDoubleClick={() => onWidth(column.key, null)}
    />
  );
}
