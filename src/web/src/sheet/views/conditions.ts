import type { Schemas } from '../../api/client';

export type SheetField = Schemas['SheetField'];
export type Condition = Schemas['SheetCondition'];
export type SheetTest = Schemas['SheetTest'];

const testNames: Record<SheetTest, string> = {
  contains: 'has in it',
  lacks: 'has not in it',
  starts: 'begins with',
  ends: 'ends with',
  is: 'is',
  isNot: 'is not',
  matches: 'fits the expression',
  matchesNot: 'does not fit the expression',
  above: 'is above',
  below: 'is below',
  atLeast: 'is at least',
  atMost: 'is at most',
  empty: 'is empty',
  filled: 'is not empty',
};

const signs: Partial<Record<SheetTest, string>> = {
  above: '>',
  below: '<',
  atLeast: '≥',
  atMost: '≤',
  is: '=',
  isNot: '≠',
};

const ofText: readonly SheetTest[] = [
  'contains',
  'lacks',
  'starts',
  'ends',
  'is',
  'isNot',
  'matches',
  'matchesNot',
  'empty',
  'filled',
];
const ofNumber: readonly SheetTest[] = [
  'above',
  'below',
  'atLeast',
  'atMost',
  'is',
  'isNot',
  'empty',
  'filled',
];

/** The tests that suit a field, the usual one first. */
export function testsOf(field: SheetField): { value: SheetTest; label: string }[] {
  const tests =
    field.type === 'choice'
      ? (['is', 'isNot'] as const)
      : field.type === 'text' || field.type === 'texts'
        ? ofText
        : ofNumber;
  return tests.map((value) => ({ value, label: testNames[value] }));
}

export function needsValue(test: SheetTest): boolean {
  return test !== 'empty' && test !== 'filled';
}

/** A condition in a few words, for its chip. */
export function inWords(condition: Condition, fields: readonly SheetField[]): string {
  const field = fields.find((each) => each.name === condition.field);
  const numeric = field && field.type !== 'text' && field.type !== 'texts' && field.type !== 'choice';
  const test = (numeric && signs[condition.test]) || testNames[condition.test];
  const values = condition.values
    .map((value) => field?.choices.find((choice) => choice.key === value)?.name ?? value)
    .join(' or ');
  return `${field?.label ?? condition.field} ${test}${needsValue(condition.test) ? ` ${values}` : ''}`;
}
