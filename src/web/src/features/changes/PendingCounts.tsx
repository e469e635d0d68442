import { type ItemKind, type Schemas } from '../../api/client';
import { useKinds } from '../../api/kinds';
import { whole } from '../../ui/format';
import { ChangeFlag } from '../../ui/Marks';

/** How many items differ, by kind and by how. */
export function PendingCounts({ counts }: { counts: readonly Schemas['PendingCount'][] }) {
  const of = (kind: ItemKind, change: Schemas['RowChange']) =>
    counts.find((each) => each.kind === kind && each.change === change)?.count ?? 0;
  const kinds = useKinds();
  const shown = kinds.all.map(({ kind }) => kind).filter((kind) => counts.some((each) => each.kind === kind));
  if (shown.length === 0) return <p className="text-ink-2">Nothing differs.</p>;
  return (
    <table className="w-full">
      <thead>
        <tr className="text-[11.5px] text-ink-3">
          <th aria-label="Kind" />
          {(['new', 'edited', 'removed'] as const).map((change) => (
            <th key={change} scope="col" className="w-16 text-right font-semibold">
              <ChangeFlag change={change} /> {change}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {shown.map((kind) => (
          <tr key={kind}>
            <th scope="row" className="text-left font-normal">
              {kinds.title(kind)}
            </th>
            {(['new', 'edited', 'removed'] as const).map((change) => (
              <td key={change} className="text-right">
                {whole(of(kind, change))}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
