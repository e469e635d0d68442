import { ArrowDown, ArrowUp } from 'lucide-react';
import type { Column } from './views/columns';
import type { SheetQuery } from './sheetQuery';
import { templateOf } from './SheetRowView';

interface Props {
  columns: readonly Column[];
  query: SheetQuery;
  onSort: (sort: string) => void;
}

/** The titles of the columns; in a flat list they sort. */
export function SheetHead({ columns, query, onSort }: Props) {
  return (
    <div
      role="row"
      aria-rowindex={1}
      className="sticky top-0 z-10 grid border-b border-line-strong bg-sheet"
      style={{ gridTemplateColumns: templateOf(columns) }}
    >
      <div role="columnheader" aria-label="Change" />
      {columns.map((column) => (
        <div
          key={column.key}
          role="columnheader"
          aria-sort={
            query.kind !== null && query.sort === column.sort && column.sort
              ? query.descending
                ? 'descending'
                : 'ascending'
              : undefined
          }
          className={`px-2 py-[5px] text-[11.5px] font-semibold whitespace-nowrap text-ink-3 ${column.numeric ? 'text-right' : ''}`}
        >
          {query.kind !== null && column.sort ? (
            <button
              type="button"
              className="rounded-sm font-semibold hover:text-ink"
              onClick={() => onSort(column.sort ?? '')}
            >
              {column.title}
              {query.sort === column.sort &&
                (query.descending ? (
                  <ArrowDown size={11} className="inline" />
                ) : (
                  <ArrowUp size={11} className="inline" />
                ))}
            </button>
          ) : (
            column.title
          )}
        </div>
      ))}
    </div>
  );
}
