import { plural } from '../../../ui/format';
import { Panel } from '../../../ui/Panel';
import { DecideForm } from './DecideForm';
import { useDecide } from './useDecide';

/** Terms that are fine as they are: they are not asked about again. */
export function LeaveThem({ terms }: { terms: readonly string[] }) {
  const { decide, problem, isPending } = useDecide();
  return (
    <DecideForm
      does={`Leave ${plural(terms.length, 'term')}`}
      can={!isPending}
      problem={problem}
      onSubmit={() => decide({ decision: 'leave', terms: [...terms] })}
    >
      <Panel>
        <p className="text-ink-2">Nothing changes, and they are not asked about again. Undo asks again.</p>
      </Panel>
    </DecideForm>
  );
}
