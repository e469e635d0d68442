import type { Command, ItemKind, SheetRow } from '../../api/client';
import type { ItemField, Kinds } from '../../api/kinds';
import type { PageCommand } from '../../app/pageCommands';
import { plural } from '../../ui/format';
import { chosenOf, sizeOf, type Chosen, type Selection } from '../selection';
import { viewOf } from '../sheetQuery';
import { kindsIn } from '../views/columns';

/** What is done to many in a dialog of its own. */
export type BulkEdit = 'texts' | 'copy' | 'labels' | 'matchTypes' | 'negatives';

/** The kinds that a selection may hold. */
export function kindsOf(selection: Selection, kinds: Kinds): ReadonlySet<ItemKind> {
  if (!selection.all) return new Set([...selection.rows.values()].map((row) => row.kind));
  return new Set(kindsIn(viewOf(selection.all.where), kinds).map((kind) => kind.kind));
}

/** Kinds that no cell and no panel can show as a whole are changed in a form. */
export function needsForm(kinds: Kinds, kind: ItemKind): boolean {
  return kinds.of(kind).fields.some((field) => field.form === 'lines');
}

/** The campaigns and ad groups of a selection. */
export function holdersOf(selection: Selection, kinds: Kinds): Chosen {
  return chosenOf(selection, (row) => ['campaign', 'adGroup'].includes(kinds.of(row.kind).holds ?? ''));
}

/** The part of a selection that has a field. */
export function havingField(selection: Selection, kinds: Kinds, name: string): Chosen {
  return chosenOf(selection, (row) => !!kinds.field(row.kind, name));
}

/** A field that some of these kinds have, or none. */
export function fieldIn(held: ReadonlySet<ItemKind>, kinds: Kinds, name: string): ItemField | undefined {
  return [...held].map((kind) => kinds.field(kind, name)).find((field) => field !== undefined);
}

interface Panel {
  selection: Selection;
  onPreview: (command: Command) => void;
  onBulk: (edit: BulkEdit) => void;
}

/** What can be done with what is selected, for the field that runs any command. */
export function selectionCommands(
  { selection, onPreview, onBulk }: Panel,
  kinds: Kinds,
  onRemove: () => void,
): PageCommand[] {
  const size = sizeOf(selection);
  if (size === 0) return [];
  const held = kindsOf(selection, kinds);
  const what = held.size === 1 ? kinds.count(size, [...held][0] as ItemKind) : plural(size, 'item');
  const comesAndGoes = [...held].every((kind) => kinds.of(kind).comesAndGoes);
  const holders = [...held].some((kind) => ['campaign', 'adGroup'].includes(kinds.of(kind).holds ?? ''));
  const set = (state: SheetRow['values']['state'] & string) =>
    onPreview({ type: 'setFields', ...havingField(selection, kinds, 'state'), values: { state } });
  return [
    { name: `Texts of ${what}`, keys: 'Alt T', run: () => onBulk('texts') },
    ...(comesAndGoes
      ? [{ name: `Copy ${what} with changes`, keys: 'Alt C', run: () => onBulk('copy') }]
      : []),
    { name: `Labels of ${what}`, keys: 'Alt L', run: () => onBulk('labels') },
    ...(fieldIn(held, kinds, 'state')
      ? [
          { name: `Pause ${what}`, run: () => set('paused') },
          { name: `Run ${what}`, run: () => set('running') },
        ]
      : []),
    ...(held.has('keyword')
      ? [{ name: `Other match types of ${what}`, run: () => onBulk('matchTypes') }]
      : []),
    ...(holders
      ? [
          { name: `Negatives onto ${what}`, keys: 'Alt M', run: () => onBulk('negatives') },
          {
            name: `Cross-negatives of ${what}`,
            run: () => onPreview({ type: 'crossNegatives', ...holdersOf(selection, kinds), match: 'exact' }),
          },
          {
            name: `Split ${what} by match type`,
            run: () => onPreview({ type: 'splitByMatchType', ...holdersOf(selection, kinds) }),
          },
        ]
      : []),
    ...(comesAndGoes ? [{ name: `Remove ${what}`, keys: 'Delete', run: onRemove }] : []),
  ];
}
