import type { ApiProblem, Command, ItemKind, SheetRow } from '../api/client';
import type { Kinds } from '../api/kinds';
import type { BulkEdit } from './editing/bulk';

/** What is open above the page. */
export type Open =
  | { what: 'preview'; command: Command }
  | { what: 'add'; kind: ItemKind }
  | { what: 'item'; row: SheetRow }
  | { what: 'bulk'; edit: BulkEdit }
  | { what: 'combine' }
  | { what: 'duplicates' }
  | { what: 'takeOut' }
  | { what: 'conflict'; problem: ApiProblem; command: Command };

/** What a link from a check asks to be added. */
export function asked(add: string | null, kinds: Kinds): Open | null {
  const kind = kinds.moving.find((each) => each.kind === add);
  return kind ? { what: 'add', kind: kind.kind } : null;
}
