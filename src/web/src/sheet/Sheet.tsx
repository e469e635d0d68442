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
import { tellWarnings, useCommand } from '../api/hooks';
import { useKinds } from '../api/kinds';
import { needsForm } from './editing/bulk';
import { useAccount } from '../api/account';
import { useGradual } from '../ui/rows/useGradual';
import { useRowWindow } from '../ui/rows/useRowWindow';
import { CellEditor, type Then } from './editing/CellEditor';
import { isHome } from '../ui/home';
import { forAll } from './forAll';
import type { ItemField } from '../api/kinds';
import type { Column } from './views/columns';
import { nextHolder } from './nextHolder';
import {
  isOfFilter,
  isSelected,
  markRow,
  noSelection,
  selectAll,
  selectRows,
  sizeOf,
  toggleRow,
  type Selection,
} from './selection';
import { keyOf, useSheetRows, type SheetQuery } from './sheetQuery';
import { SheetHead, type OnWidth } from './SheetHead';
import { headHeight, leastWidth, rowHeight, SheetRowView } from './SheetRowView';
import { useClipboard } from './useClipboard';
import { useSheetFocus } from './useSheetFocus';
import { useSheetKeys } from './useSheetKeys';

export interface SheetProps {
  query: SheetQuery;
  columns: readonly Column[];
  onSort: (column: Column) => void;
  onWidth: OnWidth;
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
  /** Number of the part that the cell holds, from 1, where it is one of several. */
  part?: number;
  startWith?: string;
  /** The row as it was when the editor was opened: the edit is of that one. */
  row: SheetRow;
}

export function Sheet(props: SheetProps) {
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
  const [cursor, setActive] = useState({ place: 0, column: 0 });
  // Where rows went away, the last one is under the cursor.
  const active = useMemo(
    () => ({
      place: Math.max(0, Math.min(cursor.place, total - 1)),
      column: Math.min(cursor.column, columns.length - 1),
    }),
    [cursor, total, columns.length],
  );
  const [spanFrom, setSpanFrom] = useState<number | null>(null);
  const [editing, setEditing] = useState<Editing | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const anchor = useRef(0);
  const following = useRef<number | null>(null);
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
  const moveOn = useRef<(then: Then) => void>(() => undefined);
  const save = (next: Command | null, then: Then = 'stay', seen = editing?.row ?? rowAt(active.place)) => {
    setProblem(null);
    const done = () => {
      finishEdit();
      moveOn.current(then);
    };
    if (!next || !seen) done();
    // A value for all rows that are marked is looked at first.
    else if (next.type === 'setCells' && editing && isSelected(selection, seen) && sizeOf(selection) > 1) {
      finishEdit();
      props.onPreview(forAll(next, selection));
    } else
      command.mutate(
        { ...next, seen: [{ kind: seen.kind, id: seen.id, version: seen.version }] },
        {
          onSuccess: (result) => {
            tellWarnings(result);
            done();
          },
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
    onArrive: (place, row, column) => {
      anchor.current = place;
      onSelect(selectRows([row]));
      grid.current?.focus();
      const field = column?.edits?.(row);
      if (field) setEditing({ field, part: column?.part, row });
      else if (props.focusField && needsForm(kinds, row.kind)) onOpenItem(row);
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
    if (!row || row.isHeading || row.change === 'removed') return;
    const column = columns[active.column];
    const field = column?.edits?.(row);
    // What no cell can show as a whole is changed in a form.
    if (!field && active.column === 0 && needsForm(kinds, row.kind)) onOpenItem(row);
    else if (field) setEditing({ field, part: column?.part, startWith, row });
  };

  /** Up or down to the next row that holds others; in a list to its end. */
  const leap = async (down: boolean) => {
    const end = down ? total - 1 : 0;
    goTo(outline ? ((await nextHolder({ from: active.place, down, total, rowAt, loadRange })) ?? end) : end);
  };
  const goTo = (place: number) => {
    moveTo(place, active.column);
    follow(place);
  };
  /** The row under the cursor is the selection, unless rows were marked one by one. */
  const follow = (place: number) => {
    anchor.current = place;
    const row = rowAt(place);
    if (selection.marked) return;
    if (row) onSelect(selectRows([row]));
    // The row is still on its way; it is selected when it is here.
    else following.current = place;
  };
  useEffect(() => {
    moveOn.current = (then) => {
      const by = { stay: [0, 0], down: [1, 0], left: [0, -1], right: [0, 1] }[then] as [number, number];
      if (then === 'stay') return;
      const next = moveTo(active.place + by[0], active.column + by[1]);
      if (next.place !== active.place) follow(next.place);
    };
  });
  useEffect(() => {
    const place = following.current;
    const row = place === null ? undefined : rowAt(place);
    if (!row) return;
    following.current = null;
    onSelect(selectRows([row]));
  }, [rowAt, onSelect]);

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
    onCommand: (next, many) => (many ? props.onPreview(next) : save(next, 'stay', rowAt(active.place))),
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
      else follow(next.place);
    },
    onFold,
    onEdit: edit,
    onToggle: () => {
      const row = rowAt(active.place);
      anchor.current = active.place;
      if (row) onSelect(markRow(selection, row));
    },
    onLeap: (down) => void leap(down),
    onSelectAll: () =>
      onSelect(selectAll(query, counts?.reduce((sum, each) => sum + each.count, 0) ?? total)),
    onWider: (by) => {
      const column = columns[active.column];
      if (column) props.onWidth(column.key, column.width + by);
    },
    onClear: () => {
      setSpanFrom(null);
      onSelect(noSelection);
    },
    onRemove: () => sizeOf(selection) > 0 && props.onRemove(),
    onCopy: (wholeRows) => void clipboard.copy(wholeRows),
    onFillDown: () => void clipboard.fillDown(),
    onType: goTo,
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
        ...query.foldedBesides.map((id) => `besides:${id}`),
      ]),
    [query.foldedCampaigns, query.foldedAdGroups, query.foldedBesides],
  );
  const width = leastWidth(columns);

  return (
    <div className="relative flex min-h-0 flex-1 flex-col bg-sheet">
      {error && <p className="p-3 text-brick">The rows cannot be read. {error.message}</p>}
      <div
        ref={grid}
        {...isHome}
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
        className="group/grid flex min-h-0 flex-1 flex-col outline-none"
      >
        <div ref={scroller} className="min-h-0 flex-1 overflow-x-auto overflow-y-scroll">
          <div style={{ minWidth: width }}>
            <SheetHead columns={columns} query={query} onSort={props.onSort} onWidth={props.onWidth} />
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
                const selected =
                  row !== undefined && isOfFilter(selection, query) && isSelected(selection, row);
                return (
                  <SheetRowView
                    key={item.slot}
                    row={row}
                    place={item.index}
                    top={item.start}
                    account={account}
                    columns={columns}
                    outline={outline}
                    folded={
                      row !== undefined && folded.has(row.isHeading ? `besides:${-row.id}` : keyOf(row))
                    }
                    selected={selected}
                    activeColumn={isActive ? active.column : null}
                    block={spanFrom !== null && (selected || isActive) ? span : null}
                    onFold={onFold}
                    editor={
                      isActive && editing && row ? (
                        <CellEditor
                          row={editing.row}
                          field={editing.field}
                          part={editing.part}
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
