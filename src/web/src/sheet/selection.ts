import type { ItemReference, Schemas, SheetRow } from '../api/client';
import { keyOf, referencesOf, type SheetQuery } from './sheetQuery';

/** What is selected: rows one by one, or all that a filter lets through but some. */
export interface Selection {
  /** The selected rows; with `all`, those that are left out. */
  rows: ReadonlyMap<string, SheetRow>;
  all: { where: SheetQuery; total: number } | null;
  /** Chosen row by row: moving about leaves it as it is. */
  marked?: boolean;
}

export const noSelection: Selection = { rows: new Map(), all: null };

/** Rows that are items: a heading is none. */
function itemsOf(rows: Iterable<SheetRow>): SheetRow[] {
  return [...rows].filter((row) => !row.isHeading);
}

export function selectRows(rows: Iterable<SheetRow>, marked = false): Selection {
  return { rows: new Map(itemsOf(rows).map((row) => [keyOf(row), row])), all: null, marked };
}

export function selectAll(where: SheetQuery, total: number): Selection {
  return { rows: new Map(), all: { where, total }, marked: true };
}

export function isSelected(selection: Selection, row: SheetRow): boolean {
  return !row.isHeading && selection.rows.has(keyOf(row)) !== (selection.all !== null);
}

export function toggleRow(selection: Selection, row: SheetRow): Selection {
  if (row.isHeading) return selection;
  const rows = new Map(selection.rows);
  if (!rows.delete(keyOf(row))) rows.set(keyOf(row), row);
  return { ...selection, rows, marked: rows.size > 0 || selection.all !== null };
}

/** Marks one row by Space: the row that was merely under the cursor is the first mark, and stays. */
export function markRow(selection: Selection, row: SheetRow): Selection {
  if (row.isHeading || selection.marked || selection.all) return toggleRow(selection, row);
  return { rows: new Map([[keyOf(row), row]]), all: null, marked: true };
}

/** The same rows under another filter: what a step touched, found wherever it stands. */
export function isOfFilter(selection: Selection, shown: SheetQuery): boolean {
  return selection.all === null || selection.all.where.stepId === shown.stepId;
}

export function sizeOf(selection: Selection): number {
  return selection.all ? selection.all.total - selection.rows.size : selection.rows.size;
}

/** The part of a command that says which items it is about. */
export interface Chosen {
  items: ItemReference[];
  where?: Schemas['SheetRequest'];
}

/** A selection as commands name it; without a filter, only rows of which something can be said are named. */
export function chosenOf(selection: Selection, only: (row: SheetRow) => boolean = () => true): Chosen {
  if (selection.all) {
    return { items: referencesOf(selection.rows.values()), where: requestOf(selection.all.where) };
  }
  return { items: referencesOf([...selection.rows.values()].filter(only)) };
}

/** A sheet query as a request: the folds are of the screen only. */
export function requestOf(query: SheetQuery): Schemas['SheetRequest'] {
  return { ...query, foldedCampaigns: [], foldedAdGroups: [], foldedBesides: [] };
}
