import {
  useCallback,
  useEffect,
  useMemo,
  useRef,
  useState,
  type ClipboardEvent,
  type MouseEvent,
  type ReactNode,
} from 'react';
import type { ApiProblem, Command, SheetRow } from '../api/client';
import { useCommand } from '../api/hooks';
import { useKinds } from '../api/kinds';
import { needsForm } from './editing/SelectionPanel';
import { useAccount } from '../api/account';
import { useGradual } from '../ui/rows/useGradual';
import { useRowWindow } from '../ui/rows/useRowWindow';
import { CellEditor } from './editing/CellEditor';
import type { ItemField } from '../api/kinds';
import type { Column } from './views/columns';
import {
  isSelected,
  noSelection,
  selectAll,
  selectRows,
  sizeOf,
  toggleRow,
  type Selection,
} from './selection';
import { keyOf, useSheetRows, type SheetQuery } from './sheetQuery';
import { SheetHead } from './SheetHead';
import { headHeight, leastWidth, rowHeight, SheetRowView } from './SheetRowView';
import { useClipboard } from './useClipboard';
import { useSheetFocus } from './useSheetFocus';
import { useSheetKeys } from './useSheetKeys';

interface Props {
  query: SheetQuery;
  columns: readonly Column[];
  onSort: (sort: string) => void;
  onFold: (row: SheetRow) => void;
  selection: Selection;
  onSelect: (selection: Selection) => void;
  /** Something that is looked at before it is done. */
  onPreview: (command: Command) => void;
  onRemove: () => void;
  onOpenItem: (row: SheetRow) => void;
  onCounts: (total: number, counts: ReturnType<typeof useSheetRows>['counts']) => void;
  onConflict: (problem: ApiProblem, command: Command) => void;
  focus: string | null;
  focusField: string | null;
  /** Shown when there are no rows. */
  children: ReactNode;
}

interface Editing {
  field: ItemField;
  startWith?: string;
}

export function Sheet(props: Props) {
  const { query, columns, onFold, selection, onSelect, onOpenItem, onCounts, children } = props;
  const account = useAccount();
  const kinds = useKinds();
  const grid = useRef<HTMLDivElement>(null);
  const [total, setTotal] = useState(0);
  const {
    scroller,
    rows: items,
    first,
    last,
    jumps,
    bodyHeight,
    scrollTo,
  } = useRowWindow({ count: total, rowHeight, headHeight });
  const {
    total: read,
    counts,
    rowAt,
    loadRange,
    isLoading,
    error,
  } = useSheetRows(query, first, Math.max(last, first + 40));
  // The window is of as many rows as there are, and those are read for the window. Far from what is loaded, the rows are
  // as many as before until the new ones are here; else the list would fold up and jump to its beginning.
  if (read !== undefined && read !== total) setTotal(read);
  const [active, setActive] = useState({ place: 0, column: 0 });
  const [spanFrom, setSpanFrom] = useState<number | null>(null);
  const [editing, setEditing] = useState<Editing | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const anchor = useRef(0);
  const outline = query.kind === null;

  const drawn = useGradual(jumps, rowAt(first) !== undefined, items.length);

  useEffect(() => {
    if (counts) onCounts(total, counts);
  }, [total, counts, onCounts]);

  // What is selected is shown in the panel as it is now, not as it was when it was selected.
  useEffect(() => {
    let moved: Map<string, SheetRow> | null = null;
    for (const item of items) {
      const row = rowAt(item.index);
      const held = row && selection.rows.get(keyOf(row));
      if (row && held && held !== row) (moved ??= new Map(selection.rows)).set(keyOf(row), row);
    }
    if (moved) onSelect({ ...selection, rows: moved });
  }, [items, rowAt, selection, onSelect]);

  const finishEdit = useCallback(() => {
    setEditing(null);
    setProblem(null);
    grid.current?.focus();
  }, []);
  const command = useCommand({ quiet: true, onProblem: (told: ApiProblem) => setProblem(told.message) });
  const save = (next: Command | null) => {
    setProblem(null);
    const row = rowAt(active.place);
    if (!next || !row) finishEdit();
    else
      command.mutate(
        { ...next, seen: [{ kind: row.kind, id: row.id, version: row.version }] },
        {
          onSuccess: finishEdit,
          onError: (told) => {
            if ((told as ApiProblem).status !== 409) return;
            finishEdit();
            props.onConflict(told as ApiProblem, next);
          },
        },
      );
  };

  const moveTo = useCallback(
    (place: number, column: number) => {
      const next = {
        place: Math.max(0, Math.min(total - 1, place)),
        column: Math.max(0, Math.min(columns.length - 1, column)),
      };
      setActive(next);
      scrollTo(next.place);
      return next;
    },
    [total, scrollTo, columns],
  );

  useSheetFocus({
    ...props,
    total,
    moveTo,
    rowAt,
    onArrive: (place, row, field) => {
      anchor.current = place;
      onSelect(selectRows([row]));
      grid.current?.focus();
      if (field) setEditing({ field });
    },
  });

  const selectOnly = (place: number) => {
    const row = rowAt(place);
    anchor.current = place;
    onSelect(row ? selectRows([row]) : noSelection);
  };
  const selectTo = async (place: number) => {
    const [from, to] = [Math.min(anchor.current, place), Math.max(anchor.current, place)];
    onSelect(selectRows(await loadRange(from, to)));
  };
  const toggle = (place: number) => {
    const row = rowAt(place);
    if (!row) return;
    anchor.current = place;
    onSelect(toggleRow(selection, row));
  };

  const edit = (startWith?: string) => {
    const row = rowAt(active.place);
    if (!row || row.change === 'removed') return;
    const field = columns[active.column]?.edits?.(row);
    // What no cell can show as a whole is changed in a form.
    if (!field && active.column === 0 && needsForm(kinds, row.kind)) onOpenItem(row);
    else if (field) setEditing({ field, startWith });
  };

  const span: readonly [number, number] =
    spanFrom === null
      ? [active.column, active.column]
      : [Math.min(spanFrom, active.column), Math.max(spanFrom, active.column)];
  const selectedRows = async () => {
    if (selection.all) return loadRange(0, total - 1);
    if (selection.rows.size <= 1) {
      const row = rowAt(active.place);
      return row ? [row] : [];
    }
    return [...selection.rows.values()];
  };
  const clipboard = useClipboard({
    columns,
    span,
    activePlace: active.place,
    total,
    selection,
    selectedRows,
    loadRange,
    onCommand: (next, many) => (many ? props.onPreview(next) : save(next)),
  });
  const onPaste = (event: ClipboardEvent) => {
    // After a click the browser takes the cell for the target, not the grid that has the focus.
    if (editing || document.activeElement !== grid.current) return;
    event.preventDefault();
    void clipboard.paste(event.clipboardData.getData('text/plain'));
  };

  const onKeyDown = useSheetKeys({
    isOwn: (target) => !editing && target === grid.current && total > 0,
    page: () => Math.max(1, Math.floor((scroller.current?.clientHeight ?? 400) / rowHeight) - 3),
    total,
    columns,
    active,
    outline,
    rowAt,
    moveTo: (place, column, extend) => {
      const sideways = column !== active.column;
      if (sideways) setSpanFrom(extend ? (spanFrom ?? active.column) : null);
      const next = moveTo(place, column);
      if (next.place === active.place) return;
      if (extend) void selectTo(next.place);
      else selectOnly(next.place);
    },
    onFold,
    onEdit: edit,
    onToggle: () => toggle(active.place),
    onSelectAll: () => onSelect(selectAll(query, total)),
    onClear: () => {
      setSpanFrom(null);
      onSelect(noSelection);
    },
    onRemove: () => sizeOf(selection) > 0 && props.onRemove(),
    onCopy: (wholeRows) => void clipboard.copy(wholeRows),
    onFillDown: () => void clipboard.fillDown(),
    onType: (place) => {
      moveTo(place, active.column);
      selectOnly(place);
    },
  });

  const onClick = (event: MouseEvent) => {
    const target = event.target as HTMLElement;
    const place = target.closest<HTMLElement>('[data-place]')?.dataset.place;
    const column = Number(target.closest<HTMLElement>('[data-column]')?.dataset.column ?? 0);
    if (place === undefined || editing) return;
    grid.current?.focus({ preventScroll: true });
    setSpanFrom(event.shiftKey && Number(place) === active.place ? (spanFrom ?? active.column) : null);
    setActive({ place: Number(place), column });
    if (event.shiftKey && Number(place) !== active.place) void selectTo(Number(place));
    else if (event.ctrlKey || event.metaKey) toggle(Number(place));
    else if (!event.shiftKey) selectOnly(Number(place));
  };

  const folded = useMemo(
    () =>
      new Set([
        ...query.foldedCampaigns.map((id) => `campaign:${id}`),
        ...query.foldedAdGroups.map((id) => `adGroup:${id}`),
      ]),
    [query.foldedCampaigns, query.foldedAdGroups],
  );
  const width = leastWidth(columns);

  return (
    <div className="relative flex min-h-0 flex-1 flex-col bg-sheet">
      {error && <p className="p-3 text-brick">The rows cannot be read. {error.message}</p>}
      <div
        ref={grid}
        role={outline ? 'treegrid' : 'grid'}
        aria-label="Items of the account"
        aria-rowcount={total + 1}
        aria-colcount={columns.length + 1}
        aria-multiselectable
        aria-busy={isLoading}
        aria-activedescendant={total > 0 ? `cell-${active.place}-${active.column}` : undefined}
        tabIndex={0}
        onKeyDown={onKeyDown}
        onPaste={onPaste}
        className="flex min-h-0 flex-1 flex-col focus-visible:outline-offset-[-2px]"
      >
        <div ref={scroller} className="min-h-0 flex-1 overflow-x-auto overflow-y-scroll">
          <div style={{ minWidth: width }}>
            <SheetHead columns={columns} query={query} onSort={props.onSort} />
            {total === 0 && !isLoading && !error && children}
            <div
              role="presentation"
              className="relative w-full"
              style={{ height: bodyHeight }}
              onClick={onClick}
              onDoubleClick={() => edit()}
            >
              {items.slice(0, drawn).map((item) => {
                const row = rowAt(item.index);
                const isActive = item.index === active.place;
                const selected = row !== undefined && isSelected(selection, row);
                return (
                  <SheetRowView
                    key={item.slot}
                    row={row}
                    place={item.index}
                    top={item.start}
                    account={account}
                    columns={columns}
                    outline={outline}
                    folded={row !== undefined && folded.has(keyOf(row))}
                    selected={selected}
                    activeColumn={isActive ? active.column : null}
                    block={spanFrom !== null && (selected || isActive) ? span : null}
                    onFold={onFold}
                    editor={
                      isActive && editing && row ? (
                        <CellEditor
                          row={row}
                          field={editing.field}
                          startWith={editing.startWith}
                          account={account}
                          problem={problem}
                          onSave={save}
                          onLeave={finishEdit}
                        />
                      ) : null
                    }
                  />
                );
              })}
            </div>
          </div>
        </div>
      </div>
    </div>
  );
}
