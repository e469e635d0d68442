import { toast } from 'sonner';
import type { Command, Schemas, SheetRow } from '../api/client';
import { useAccount } from '../api/account';
import { plural } from '../ui/format';
import type { Column } from './views/columns';
import { sizeOf, type Selection } from './selection';
import { mostLoaded } from './sheetQuery';
import { fit, readTsv, writeTsv } from './tsv';

interface Cells {
  columns: readonly Column[];
  /** First and last column of the block. */
  span: readonly [number, number];
  activePlace: number;
  total: number;
  selection: Selection;
  /** The selected rows in the order in which they stand. */
  selectedRows: () => Promise<SheetRow[]>;
  loadRange: (from: number, to: number) => Promise<SheetRow[]>;
  onCommand: (command: Command, many: boolean) => void;
}

type CellEdit = Schemas['CellEdit'];

/** Cells out and in as TSV, and one value down through the selection. */
export function useClipboard(cells: Cells) {
  const account = useAccount();
  const { columns, span, selection, selectedRows, loadRange, onCommand } = cells;

  const copy = async (wholeRows: boolean) => {
    if (sizeOf(selection) > mostLoaded) {
      toast.error(`At most ${plural(mostLoaded, 'row')} are copied at once. Use outtake for more.`);
      return;
    }
    if (!navigator.clipboard) {
      toast.error('The browser gives no access to the clipboard here. Open Fendrik over https.');
      return;
    }
    const rows = await selectedRows();
    const chosen = wholeRows ? columns : columns.slice(span[0], span[1] + 1);
    const lines = rows.map((row) => chosen.map((column) => column.text(row, account)));
    if (wholeRows) lines.unshift(chosen.map((column) => column.title));
    await navigator.clipboard.writeText(writeTsv(lines));
    toast(`Copied ${plural(rows.length, 'row')} × ${plural(chosen.length, 'column')}.`);
  };

  const edits = (rows: readonly SheetRow[], cell: (row: number, column: number) => string | undefined) => {
    const list: CellEdit[] = [];
    rows.forEach((row, number) => {
      for (let place = span[0]; place < columns.length; place++) {
        const text = cell(number, place - span[0]);
        const column = columns[place];
        const field = column?.edits?.(row);
        if (text === undefined) continue;
        if (!field) throw new Error(column?.title ?? '');
        list.push({
          item: { kind: row.kind, id: row.id },
          field: field.name,
          text,
          part: column?.part ?? null,
        });
      }
    });
    return list;
  };

  const paste = async (text: string) => {
    const block = readTsv(text);
    const size = sizeOf(selection);
    const fitted = fit(block, size);
    if (fitted.problem) {
      toast.error(fitted.problem);
      return;
    }
    const downwards = size <= 1 && fitted.rows > 1;
    if (downwards && cells.activePlace + fitted.rows > cells.total) {
      toast.error(
        `The clipboard has ${plural(fitted.rows, 'row')}, and only ${plural(cells.total - cells.activePlace, 'row')} are left below. Nothing was pasted.`,
      );
      return;
    }
    const rows = downwards
      ? await loadRange(cells.activePlace, cells.activePlace + fitted.rows - 1)
      : await selectedRows();
    // One value goes into every marked column, as it goes into every row.
    const single = block.length === 1 && block[0]?.length === 1;
    try {
      const list = edits(rows, (row, column) =>
        single ? (column <= span[1] - span[0] ? block[0]?.[0] : undefined) : fitted.cell(row, column),
      );
      onCommand({ type: 'setCells', cells: list }, list.length > 1);
    } catch (error) {
      toast.error(
        `“${(error as Error).message}” cannot be pasted into for all of these rows. Nothing was pasted.`,
      );
    }
  };

  const fillDown = async () => {
    const rows = await selectedRows();
    const [first, ...below] = rows;
    const column = columns[span[0]];
    if (!first || !column || below.length === 0) {
      toast.error('Select the row with the value and the rows below that are to get it.');
      return;
    }
    try {
      onCommand(
        {
          type: 'setCells',
          cells: edits(below, (_, place) => (place === 0 ? column.text(first, account) : undefined)),
        },
        true,
      );
    } catch {
      toast.error(`“${column.title}” cannot be filled down for all of these rows.`);
    }
  };

  return { copy, paste, fillDown };
}
