import type { Schemas } from '../../api/client';
import { plural } from '../../ui/format';
import { WeightMark } from '../../ui/Marks';

const shown = 8;

/** What is likely wrong with what would be made: said before it is made. */
export function Warnings({ warnings }: { warnings: readonly Schemas['StepWarning'][] }) {
  if (warnings.length === 0) return null;
  return (
    <section aria-label="Worth a look first" className="mb-3 rounded-sm bg-ochre-wash px-2.5 py-1.5">
      <h3 className="mb-0.5 font-body text-[12px] font-semibold">Worth a look first</h3>
      <ul className="space-y-0.5">
        {warnings.slice(0, shown).map((warning) => (
          <li key={`${warning.kind}${warning.id}${warning.message}`}>
            <WeightMark weight={warning.weight} /> <b className="font-semibold">{warning.name}</b>{' '}
            {warning.message}
          </li>
        ))}
      </ul>
      {warnings.length > shown && (
        <p className="text-ink-2">and {plural(warnings.length - shown, 'thing')} more</p>
      )}
    </section>
  );
}
