import { useVirtualizer } from '@tanstack/react-virtual';
import {
  useCallback,
  useEffect,
  useMemo,
  useRef,
  useState,
  type KeyboardEvent,
  type MouseEvent,
  type ReactNode,
} from 'react';
import { type ApiProblem, type Command, type SheetRow } from '../../api/client';
import { useCommand } from '../../api/hooks';
import { useAccount } from '../../app/account';
import { CellEditor } from './CellEditor';
import { columnsOf, type EditField } from './columns';
import { keyOf, useSheetRows, type SheetQuery } from './sheetQuery';
import { SheetHead } from './SheetHead';
import { rowHeight, SheetRowView } from './SheetRowView';

export type Selection = ReadonlyMap<string, SheetRow>;

interface Props {
  query: SheetQuery;
  onSort: (sort: string) => void;
  onFold: (row: SheetRow) => void;
  selection: Selection;
  onSelect: (selection: Selection) => void;
  onRemove: () => void;
  onOpenAd: (row: SheetRow) => void;
  onCounts: (total: number, counts: ReturnType<typeof useSheetRows>['counts']) => void;
  focus: string | null;
  focusField: string | null;
  /** Shown when there are no rows. */
  children: ReactNode;
}

interface Editing {
  field: EditField;
  startWith?: string;
}

const typeAheadPause = 700;

export function Sheet(props: Props) {
  const {
    query,
    onSort,
    onFold,
    selection,
    onSelect,
    onRemove,
    onOpenAd,
    onCounts,
    focus,
    focusField,
    children,
  } = props;
  const account = useAccount();
  const scroller = useRef<HTMLDivElement>(null);
  const grid = useRef<HTMLDivElement>(null);
  const [range, setRange] = useState({ first: 0, last: 40 });
  const { total, counts, rowAt, loadRange, isLoading, error } = useSheetRows(query, range.first, range.last);
  const [active, setActive] = useState({ place: 0, column: 0 });
  const [editing, setEditing] = useState<Editing | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const anchor = useRef(0);
  const typed = useRef({ text: '', at: 0 });
  const outline = query.view === 'outline';
  const columns = useMemo(() => columnsOf(query.view), [query.view]);

  // eslint-disable-next-line react-hooks/incompatible-library -- the virtualiser's own state is meant to change in place
  const virtualizer = useVirtualizer({
    count: total,
    getScrollElement: () => scroller.current,
    estimateSize: () => rowHeight,
    overscan: 12,
    onChange: (instance) => {
      const first = instance.range?.startIndex ?? 0;
      const last = instance.range?.endIndex ?? 0;
      setRange((current) =>
        current.first === first && current.last === last
          ? current
          : { first, last: Math.max(last, first + 40) },
      );
    },
  });
  const items = virtualizer.getVirtualItems();

  useEffect(() => onCounts(total, counts), [total, counts, onCounts]);

  // What is selected is shown in the panel as it is now, not as it was when it was selected.
  useEffect(() => {
    let moved: Map<string, SheetRow> | null = null;
    for (const item of items) {
      const row = rowAt(item.index);
      const known = row && selection.get(keyOf(row));
      if (row && known && known !== row) (moved ??= new Map(selection)).set(keyOf(row), row);
    }
    if (moved) onSelect(moved);
  }, [items, rowAt, selection, onSelect]);

  const finishEdit = useCallback(() => {
    setEditing(null);
    setProblem(null);
    grid.current?.focus();
  }, []);
  const command = useCommand({ quiet: true, onProblem: (told: ApiProblem) => setProblem(told.message) });
  const save = (next: Command | null) => {
    setProblem(null);
    if (next) command.mutate(next, { onSuccess: finishEdit });
    else finishEdit();
  };

  const moveTo = useCallback(
    (place: number, column: number) => {
      const next = {
        place: Math.max(0, Math.min(total - 1, place)),
        column: Math.max(0, Math.min(columns.length - 1, column)),
      };
      setActive(next);
      virtualizer.scrollToIndex(next.place, { align: 'auto' });
      return next;
    },
    [total, virtualizer, columns],
  );

  // A link from elsewhere points at one item: go there, and open the field that is to be mended.
  const focused = useRef<string | null>(null);
  useEffect(() => {
    if (!focus || total === 0 || focused.current === `${focus} ${focusField ?? ''}`) return;
    for (let place = 0; place < Math.min(total, 500); place++) {
      const row = rowAt(place);
      if (row && keyOf(row) === focus) {
        focused.current = `${focus} ${focusField ?? ''}`;
        const column = Math.max(
          0,
          columns.findIndex((each) => each.edits?.(row) === (focusField === 'text' ? 'name' : focusField)),
        );
        moveTo(place, column);
        onSelect(new Map([[focus, row]]));
        grid.current?.focus();
        const field = focusField ? columns[column]?.edits?.(row) : null;
        if (field) setEditing({ field });
        return;
      }
    }
  }, [focus, focusField, total, rowAt, moveTo, onSelect, columns]);

  const selectOnly = (place: number) => {
    const row = rowAt(place);
    anchor.current = place;
    onSelect(row ? new Map([[keyOf(row), row]]) : new Map());
  };
  const selectTo = async (place: number) => {
    const [from, to] = [Math.min(anchor.current, place), Math.max(anchor.current, place)];
    const rows = await loadRange(from, to);
    onSelect(new Map(rows.map((row) => [keyOf(row), row])));
  };
  const toggle = (place: number) => {
    const row = rowAt(place);
    if (!row) return;
    const next = new Map(selection);
    if (!next.delete(keyOf(row))) next.set(keyOf(row), row);
    anchor.current = place;
    onSelect(next);
  };

  const edit = (startWith?: string) => {
    const row = rowAt(active.place);
    if (!row || row.change === 'removed') return;
    if (row.kind === 'textAd' && active.column === 0) {
      onOpenAd(row);
      return;
    }
    const field = columns[active.column]?.edits?.(row);
    if (field) setEditing({ field, startWith });
  };

  const typeAhead = (letter: string) => {
    const now = Date.now();
    const text = now - typed.current.at > typeAheadPause ? letter : typed.current.text + letter;
    typed.current = { text, at: now };
    const start = active.place + (text.length > 1 ? 0 : 1);
    for (let step = 0; step < Math.min(total, 1000); step++) {
      const place = (start + step) % total;
      if (rowAt(place)?.name.toLowerCase().startsWith(text.toLowerCase())) {
        moveTo(place, active.column);
        selectOnly(place);
        return;
      }
    }
  };

  const onKeyDown = (event: KeyboardEvent) => {
    if (editing || event.target !== grid.current || total === 0) return;
    const page = Math.max(1, Math.floor((scroller.current?.clientHeight ?? 400) / rowHeight) - 2);
    const moves: Record<string, [number, number]> = {
      ArrowDown: [1, 0],
      ArrowUp: [-1, 0],
      ArrowRight: [0, 1],
      ArrowLeft: [0, -1],
      PageDown: [page, 0],
      PageUp: [-page, 0],
      Home: [-total, 0],
      End: [total, 0],
    };
    const move = moves[event.key];
    const control = event.ctrlKey || event.metaKey;
    if (move) {
      event.preventDefault();
      const next = moveTo(active.place + move[0], active.column + move[1]);
      if (event.shiftKey) void selectTo(next.place);
      else if (move[0] !== 0) selectOnly(next.place);
    } else if (event.key === 'Enter' || event.key === 'F2') {
      event.preventDefault();
      const row = rowAt(active.place);
      if (event.key === 'Enter' && outline && active.column === 0 && row?.inside != null) onFold(row);
      else edit();
    } else if (event.key === ' ') {
      event.preventDefault();
      toggle(active.place);
    } else if (control && event.key.toLowerCase() === 'a') {
      event.preventDefault();
      void loadRange(0, total - 1).then((rows) => onSelect(new Map(rows.map((row) => [keyOf(row), row]))));
    } else if (event.key === 'Delete') {
      event.preventDefault();
      if (selection.size > 0) onRemove();
    } else if (event.key === 'Escape') {
      onSelect(new Map());
    } else if (event.key.length === 1 && !control && !event.altKey && event.key !== '?') {
      const numeric = columns[active.column]?.numeric;
      if (numeric && /[0-9]/.test(event.key)) {
        // The editor begins with this key; the browser must not type it a second time.
        event.preventDefault();
        edit(event.key);
      } else if (!numeric) typeAhead(event.key);
    }
  };

  const placeOf = (event: MouseEvent) => {
    const target = event.target as HTMLElement;
    const place = target.closest<HTMLElement>('[data-place]')?.dataset.place;
    const column = target.closest<HTMLElement>('[data-column]')?.dataset.column;
    return place === undefined ? null : { place: Number(place), column: Number(column ?? 0) };
  };
  const onClick = (event: MouseEvent) => {
    const at = placeOf(event);
    if (!at || editing) return;
    grid.current?.focus({ preventScroll: true });
    setActive(at);
    if (event.shiftKey) void selectTo(at.place);
    else if (event.ctrlKey || event.metaKey) toggle(at.place);
    else selectOnly(at.place);
  };

  const folded = useMemo(
    () =>
      new Set([
        ...query.foldedCampaigns.map((id) => `campaign:${id}`),
        ...query.foldedAdGroups.map((id) => `adGroup:${id}`),
      ]),
    [query.foldedCampaigns, query.foldedAdGroups],
  );

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
        className="flex min-h-0 flex-1 flex-col focus-visible:outline-offset-[-2px]"
      >
        <SheetHead columns={columns} query={query} onSort={onSort} />
        <div ref={scroller} className="min-h-0 flex-1 overflow-x-hidden overflow-y-scroll">
          {total === 0 && !isLoading && !error && children}
          <div
            role="presentation"
            className="relative w-full"
            style={{ height: virtualizer.getTotalSize() }}
            onClick={onClick}
            onDoubleClick={() => edit()}
          >
            {items.map((item) => {
              const row = rowAt(item.index);
              if (!row) return null;
              const isActive = item.index === active.place;
              return (
                <SheetRowView
                  key={keyOf(row)}
                  row={row}
                  place={item.index}
                  top={item.start}
                  account={account}
                  columns={columns}
                  outline={outline}
                  folded={folded.has(keyOf(row))}
                  selected={selection.has(keyOf(row))}
                  activeColumn={isActive ? active.column : null}
                  onFold={onFold}
                  editor={
                    isActive && editing ? (
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
  );
}
