import clsx from 'clsx';
import { Tip } from '../../ui/Tip';
import type { Condition } from './useConditions';

/** Shows nothing, though somebody may think that it does. */
const troubles: readonly Condition['condition'][] = ['refused', 'noPayer', 'nothingToShow'];
/** Shows nothing for now. */
const waits: readonly Condition['condition'][] = ['outOfBudget', 'inReview'];

/** What a campaign truly does, and why. */
export function ConditionCell({ condition }: { condition: Condition | undefined }) {
  if (!condition) return <td className="px-2 text-ink-3">—</td>;
  const trouble = troubles.includes(condition.condition);
  const wait = waits.includes(condition.condition);
  return (
    <td className="px-2 whitespace-nowrap">
      <Tip text={condition.says}>
        <span
          className={clsx(
            'rounded-sm',
            trouble
              ? 'text-brick'
              : wait
                ? 'text-ochre'
                : condition.condition === 'running'
                  ? ''
                  : 'text-ink-3',
          )}
        >
          {trouble ? '■ ' : wait ? '◆ ' : condition.condition === 'paused' ? '○ ' : ''}
          {condition.name}
          <span className="sr-only">: {condition.says}</span>
        </span>
      </Tip>
    </td>
  );
}
