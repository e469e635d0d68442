import type { Schemas } from '../../api/client';
import { fullDay } from '../../ui/format';

type Insertion = Schemas['Insertion'];

export const insertedNames: readonly { value: Insertion['name']; label: string }[] = [
  { value: 'keyword', label: 'Searched words' },
  { value: 'adGroup', label: 'Name of the ad group' },
  { value: 'campaign', label: 'Name of the campaign' },
  { value: 'place', label: 'Where the person is' },
  { value: 'countdown', label: 'Days until a day' },
];

export const insertedCases: readonly { value: Insertion['case']; label: string }[] = [
  { value: 'asWritten', label: 'as it is' },
  { value: 'firstLetter', label: 'First letter' },
  { value: 'everyWord', label: 'Every Word' },
];

/** Inserted words in a few words of their own. */
export function chipOf(insertion: Insertion | null): string {
  if (!insertion) return 'inserted words';
  const name = insertedNames.find((each) => each.value === insertion.name)?.label.toLowerCase() ?? '';
  const what = insertion.day ? `days until ${fullDay(insertion.day)}` : name;
  return `${what}, else “${insertion.fallback}”`;
}
