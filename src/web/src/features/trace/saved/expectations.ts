import type { Schemas } from '../../../api/client';

export type Expectation = Schemas['Expectation'];

export const expectations = [
  { value: 'shows', label: 'Should show' },
  { value: 'showsFrom', label: 'Should show from one ad group' },
  { value: 'showsNot', label: 'Should not show' },
] as const satisfies readonly { value: Expectation; label: string }[];
