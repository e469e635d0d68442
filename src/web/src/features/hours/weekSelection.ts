import type { WeekSpan } from './useHours';

/** Days as the week is shown. */
export const days = ['monday', 'tuesday', 'wednesday', 'thursday', 'friday', 'saturday', 'sunday'] as const;

export const hoursOfDay = 24;
const minutesOfHour = 60;

export interface Cell {
  /** Row of the grid, 0 for Monday. */
  day: number;
  hour: number;
}

/** A block of cells: from where it was begun to where it goes. */
export interface Block {
  from: Cell;
  to: Cell;
}

export const cellOf = (day: number, hour: number): Cell => ({
  day: Math.min(Math.max(day, 0), days.length - 1),
  hour: Math.min(Math.max(hour, 0), hoursOfDay - 1),
});

const range = (one: number, other: number): readonly [number, number] => [
  Math.min(one, other),
  Math.max(one, other),
];

export function holds({ from, to }: Block, { day, hour }: Cell): boolean {
  const [firstDay, lastDay] = range(from.day, to.day);
  const [first, last] = range(from.hour, to.hour);
  return firstDay <= day && day <= lastDay && first <= hour && hour <= last;
}

/** The block as parts of days; times within its first and last hour may be said to the quarter. */
export function spansOf({ from, to }: Block, exact?: { from: number; to: number }): WeekSpan[] {
  const [firstDay, lastDay] = range(from.day, to.day);
  const [first, last] = range(from.hour, to.hour);
  return days.slice(firstDay, lastDay + 1).map((day) => ({
    day,
    from: exact?.from ?? first * minutesOfHour,
    to: exact?.to ?? (last + 1) * minutesOfHour,
  }));
}

export const timesOf = ({ from, to }: Block) => {
  const [first, last] = range(from.hour, to.hour);
  return { from: first * minutesOfHour, to: (last + 1) * minutesOfHour };
};

export const clock = (minute: number): string =>
  `${String(Math.floor(minute / minutesOfHour)).padStart(2, '0')}:${String(minute % minutesOfHour).padStart(2, '0')}`;
