import { describe, expect, it } from 'vitest';
import { inWords, testsOf, type SheetField } from './conditions';

const cost: SheetField = { name: 'cost', label: 'Cost', type: 'amount', choices: [] };
const match: SheetField = {
  name: 'match',
  label: 'Match type',
  type: 'choice',
  choices: [
    { key: 'exact', name: 'exact', number: 1 },
    { key: 'allWords', name: 'all words', number: 3 },
  ],
};
const name: SheetField = { name: 'name', label: 'Name or words', type: 'text', choices: [] };

describe('a condition', () => {
  it('is short in its chip', () => {
    expect(inWords({ field: 'cost', test: 'above', values: ['20'] }, [cost])).toBe('Cost > 20');
    expect(inWords({ field: 'match', test: 'is', values: ['exact', 'allWords'] }, [match])).toBe(
      'Match type is exact or all words',
    );
    expect(inWords({ field: 'name', test: 'empty', values: [] }, [name])).toBe('Name or words is empty');
  });

  it('offers the tests that suit its field', () => {
    expect(testsOf(cost).map((test) => test.value)).not.toContain('contains');
    expect(testsOf(name).map((test) => test.value)).not.toContain('above');
    expect(testsOf(match)).toHaveLength(2);
  });
});
