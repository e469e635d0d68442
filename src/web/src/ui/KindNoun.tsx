import type { ItemKind } from '../api/client';
import { useKinds } from '../api/kinds';

/** What one item of a kind is called. */
export function KindNoun({ kind }: { kind: ItemKind }) {
  return useKinds().noun(kind);
}
