import type { Schemas } from '../../../api/client';

/** Which searches of the past are looked at, and which of them is opened. */
export interface PastQuestion {
  day: string;
  fate: Schemas['SearchFate'] | 'any';
  keyword: number | null;
  term: string | null;
  search: string | null;
}

export const fates = [
  { value: 'any', label: 'Any' },
  { value: 'shown', label: 'Shown' },
  { value: 'lostToRank', label: 'Lost to rank' },
  { value: 'lostToBudget', label: 'Lost to budget' },
  { value: 'blocked', label: 'Blocked by a negative' },
] as const satisfies readonly { value: PastQuestion['fate']; label: string }[];

/** What an address asks of the past; none when it asks about a search that is typed. */
export function pastOf(address: URLSearchParams, newest: string | null): PastQuestion | null {
  const past = address.get('past');
  if (past === null) return null;
  const keyword = Number(address.get('keyword'));
  return {
    day: address.get('day') ?? newest ?? '',
    fate: fates.find((fate) => fate.value === address.get('fate'))?.value ?? 'any',
    keyword: keyword > 0 && Number.isInteger(keyword) ? keyword : null,
    term: address.get('term'),
    search: /^\d{1,19}$/.test(past) ? past : null,
  };
}

/** The address that asks it. */
export function addressOf(question: PastQuestion): URLSearchParams {
  const address = new URLSearchParams({ past: question.search ?? 'list', day: question.day });
  if (question.fate !== 'any') address.set('fate', question.fate);
  if (question.keyword !== null) address.set('keyword', String(question.keyword));
  if (question.term !== null) address.set('term', question.term);
  return address;
}

/** A moment on the clock of the account. */
export function momentIn(iso: string, timeZone: string): string {
  return new Date(iso).toLocaleTimeString('en-GB', {
    hour: '2-digit',
    minute: '2-digit',
    second: '2-digit',
    timeZone,
  });
}
