import type { Schemas } from '../../api/client';

/** What is asked: a search, and by whom it is made. */
export interface Question {
  text: string;
  device: Schemas['Device'];
  site: Schemas['TraceRequest']['site'];
  copy: Schemas['TracedCopy'];
  /** Where the person is; nowhere in particular without it. */
  place: string | null;
  /** Hour of the account's clock; now without it. */
  hour: number | null;
  /** The page of a content site; none in particular without it. */
  page: string | null;
  /** Audiences that the person is of. */
  audiences: string[];
  /** The person's language; any without it. */
  language: string | null;
}

export const devices = [
  { value: 'phone', label: 'Phone' },
  { value: 'desktop', label: 'Desktop' },
  { value: 'tablet', label: 'Tablet' },
] as const satisfies readonly { value: Question['device']; label: string }[];

export const sites = [
  { value: 'search', label: 'Search results' },
  { value: 'partners', label: 'Partner sites' },
  { value: 'content', label: 'Content sites' },
] as const satisfies readonly { value: Question['site']; label: string }[];

export const copies = [
  { value: 'working', label: 'Working copy' },
  { value: 'live', label: 'Live copy' },
] as const satisfies readonly { value: Question['copy']; label: string }[];

const now = 'now';

/** The hours that can be chosen. */
export const hours = [
  { value: now, label: 'Now' },
  ...Array.from({ length: 24 }, (_, hour) => ({
    value: String(hour),
    label: `${String(hour).padStart(2, '0')}:00`,
  })),
];

const oneOf = <T extends string>(options: readonly { value: T }[], asked: string | null, usual: T): T =>
  options.find((option) => option.value === asked)?.value ?? usual;

/** The question that an address asks. */
export function questionOf(address: URLSearchParams): Question {
  return {
    text: address.get('text')?.trim() ?? '',
    device: oneOf(devices, address.get('device'), 'phone'),
    site: oneOf<Question['site']>(sites, address.get('site'), 'search'),
    copy: oneOf(copies, address.get('copy'), 'working'),
    place: address.get('place'),
    hour: hours.find((hour) => hour.value !== now && hour.value === address.get('hour'))
      ? Number(address.get('hour'))
      : null,
    page: address.get('page'),
    audiences: address.getAll('audiences'),
    language: address.get('language'),
  };
}
