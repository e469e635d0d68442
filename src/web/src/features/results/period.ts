/** A period as two ISO days, both counted. */
export interface Days {
  first: string;
  last: string;
}

export function addDays(iso: string, days: number): string {
  const date = new Date(`${iso}T00:00:00Z`);
  date.setUTCDate(date.getUTCDate() + days);
  return date.toISOString().slice(0, 10);
}

/** Days and the days that they are compared with, as the server is asked for them. */
export interface ComparedDays extends Days {
  against: Comparison;
  beforeFirst?: string | undefined;
  beforeLast?: string | undefined;
}

export type Preset =
  'last7' | 'last14' | 'last28' | 'last91' | 'thisWeek' | 'lastWeek' | 'thisMonth' | 'lastMonth' | 'own';

export const presets: { value: Preset; label: string }[] = [
  { value: 'last7', label: 'Last 7 days' },
  { value: 'last14', label: 'Last 14 days' },
  { value: 'last28', label: 'Last 28 days' },
  { value: 'last91', label: 'Last 13 weeks' },
  { value: 'thisWeek', label: 'This week' },
  { value: 'lastWeek', label: 'Last week' },
  { value: 'thisMonth', label: 'This month' },
  { value: 'lastMonth', label: 'Last month' },
  { value: 'own', label: 'Own dates' },
];

/** What the days are compared with. */
export const comparisons = [
  { value: 'daysBefore', label: 'the days before' },
  { value: 'sameWeekdaysBefore', label: 'the same weekdays before' },
  { value: 'monthBefore', label: 'the month before' },
  { value: 'yearBefore', label: 'the year before' },
  { value: 'chosen', label: 'other dates' },
] as const;

export type Comparison = (typeof comparisons)[number]['value'];

/** The Monday of a day's week. */
const mondayOf = (iso: string) => addDays(iso, -((new Date(`${iso}T00:00:00Z`).getUTCDay() + 6) % 7));

/** The days of a preset, counted back from the last day that has a report. */
export function daysOf(preset: Exclude<Preset, 'own'>, newest: string): Days {
  switch (preset) {
    case 'last7':
      return { first: addDays(newest, -6), last: newest };
    case 'last14':
      return { first: addDays(newest, -13), last: newest };
    case 'last28':
      return { first: addDays(newest, -27), last: newest };
    case 'last91':
      return { first: addDays(newest, -90), last: newest };
    case 'thisWeek':
      return { first: mondayOf(newest), last: newest };
    case 'lastWeek': {
      const monday = mondayOf(newest);
      return { first: addDays(monday, -7), last: addDays(monday, -1) };
    }
    case 'thisMonth':
      return { first: `${newest.slice(0, 8)}01`, last: newest };
    case 'lastMonth': {
      const last = addDays(`${newest.slice(0, 8)}01`, -1);
      return { first: `${last.slice(0, 8)}01`, last };
    }
  }
}
