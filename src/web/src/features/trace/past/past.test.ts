import { expect, test } from 'vitest';
import { addressOf, momentIn, pastOf } from './past';

test('an address about a typed search asks nothing of the past', () => {
  expect(pastOf(new URLSearchParams('text=piano'), '2026-05-11')).toBeNull();
});

test('what is asked of the past comes back from its address', () => {
  const question = {
    day: '2026-05-04',
    fate: 'lostToRank',
    keyword: 12,
    term: 'piano tuner',
    search: '543210987654321098',
  } as const;
  expect(pastOf(addressOf(question), null)).toEqual(question);
});

test('without a day it is the newest that has a report', () => {
  expect(pastOf(new URLSearchParams('past=list'), '2026-05-11')?.day).toBe('2026-05-11');
});

test('a moment is told on the clock of the account, whoever looks', () => {
  expect(momentIn('2026-05-11T12:00:05Z', 'Europe/London')).toBe('13:00:05');
});
