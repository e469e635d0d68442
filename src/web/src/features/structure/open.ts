import type { ApiProblem, Command, SheetRow } from '../../api/client';
import type { Addition } from './AddDialog';
import type { BulkEdit } from './SelectionPanel';

/** What is open above the page. */
export type Open =
  | { what: 'preview'; command: Command }
  | { what: 'add'; addition: Addition }
  | { what: 'ad'; row: SheetRow | null }
  | { what: 'bulk'; edit: BulkEdit }
  | { what: 'combine' }
  | { what: 'duplicates' }
  | { what: 'takeOut' }
  | { what: 'conflict'; problem: ApiProblem; command: Command };

/** What a link from a check asks to be added. */
export function asked(add: string | null): Open | null {
  if (add === 'ad') return { what: 'ad', row: null };
  return add === 'keywords' ? { what: 'add', addition: add } : null;
}
