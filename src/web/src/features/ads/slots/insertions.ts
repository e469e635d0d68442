import type { Schemas } from '../../../api/client';

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
