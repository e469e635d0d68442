import type { Schemas } from '../../api/client';

/** Which rows of a list are shown. */
export type IntakeShown = 'all' | 'new' | 'changed' | 'same' | 'leftOut' | 'removed';

/** Which outcomes a filter lets through. */
export const outcomesOf: Record<IntakeShown, readonly Schemas['IntakeOutcome'][]> = {
  all: ['new', 'edit', 'same', 'twice', 'refused', 'removed', 'notThere'],
  new: ['new'],
  changed: ['edit'],
  same: ['same'],
  leftOut: ['twice', 'refused', 'notThere'],
  removed: ['removed'],
};

/** Rows of the list that a filter lets through. */
export function rowsOf(intake: Schemas['IntakeView'], shown: IntakeShown): number {
  return intake.rows
    .filter((each) => outcomesOf[shown].includes(each.outcome))
    .reduce((sum, each) => sum + each.count, 0);
}
