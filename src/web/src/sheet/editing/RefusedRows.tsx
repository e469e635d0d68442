import type { Schemas } from '../../api/client';

const shown = 50;

/** What would be left as before, each row with its reason. */
export function RefusedRows({ rows, count }: { rows: readonly Schemas['RefusedItem'][]; count: number }) {
  if (count === 0) return null;
  return (
    <section aria-label="Left as before" className="mb-3">
      <h3 className="mb-0.5 font-body text-[12px] font-semibold text-ink-2">Left as before</h3>
      <ul className="space-y-0.5">
        {rows.slice(0, shown).map((item) => (
          <li key={`${item.kind}${item.id}${item.reason}`} className="text-ochre">
            <b>{item.name}</b> {item.reason}
          </li>
        ))}
      </ul>
      {count > Math.min(shown, rows.length) && (
        <p className="text-ink-3">
          and {(count - Math.min(shown, rows.length)).toLocaleString('en-GB')} more
        </p>
      )}
    </section>
  );
}
