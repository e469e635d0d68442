import type { AccountSummary } from '../api/client';

const integer = new Intl.NumberFormat('en-GB', { maximumFractionDigits: 0 });
const tenth = new Intl.NumberFormat('en-GB', { minimumFractionDigits: 0, maximumFractionDigits: 1 });

/** “—” stands for nothing, “0” for none. */
export const nothing = '—';

export type Currency = Pick<AccountSummary, 'currencySign' | 'minorUnits'>;

export function money(amount: number | null | undefined, currency: Currency): string {
  if (amount === null || amount === undefined) return nothing;
  const digits = new Intl.NumberFormat('en-GB', {
    minimumFractionDigits: currency.minorUnits,
    maximumFractionDigits: currency.minorUnits,
  }).format(Math.abs(amount));
  return `${amount < 0 ? '−' : ''}${currency.currencySign}${digits}`;
}

export function count(value: number | null | undefined): string {
  return value === null || value === undefined ? nothing : tenth.format(value);
}

export function whole(value: number | null | undefined): string {
  return value === null || value === undefined ? nothing : integer.format(value);
}

/** A share from 0 to 1 as a percentage. */
export function percent(share: number | null | undefined, digits = 2): string {
  return share === null || share === undefined ? nothing : `${(share * 100).toFixed(digits)}%`;
}

/** How many times as much as is usual. */
export function times(factor: number | null | undefined): string {
  return factor === null || factor === undefined ? nothing : `× ${factor.toFixed(2)}`;
}

/** A time as a person reads it: 2.1 s. */
export function seconds(milliseconds: number): string {
  return milliseconds > 0 ? `${tenth.format(milliseconds / 1000)} s` : nothing;
}

/** A change as a share, with its sign. */
export function change(share: number | null | undefined): string {
  if (share === null || share === undefined) return nothing;
  const text = Math.abs(share * 100).toFixed(1);
  return text === '0.0' ? '0.0%' : `${share < 0 ? '−' : '+'}${text}%`;
}

export function plural(n: number, one: string, many = `${one}s`): string {
  return `${integer.format(n)} ${n === 1 ? one : many}`;
}

const day = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', timeZone: 'UTC' });
const dayAndYear = new Intl.DateTimeFormat('en-GB', {
  day: 'numeric',
  month: 'short',
  year: 'numeric',
  timeZone: 'UTC',
});

export function shortDay(iso: string): string {
  return day.format(new Date(`${iso}T00:00:00Z`));
}

export function fullDay(iso: string): string {
  return dayAndYear.format(new Date(`${iso}T00:00:00Z`));
}

export function clockTime(iso: string): string {
  return new Date(iso).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' });
}

export function moment(iso: string): string {
  return new Date(iso).toLocaleString('en-GB', {
    day: 'numeric',
    month: 'short',
    hour: '2-digit',
    minute: '2-digit',
  });
}

/** The day that it is somewhere, as ISO 8601 writes it. */
export function todayIn(timeZone: string, now = new Date()): string {
  const parts = new Intl.DateTimeFormat('en-GB', {
    timeZone,
    year: 'numeric',
    month: '2-digit',
    day: '2-digit',
  }).formatToParts(now);
  const of = (type: string) => parts.find((part) => part.type === type)?.value ?? '';
  return `${of('year')}-${of('month')}-${of('day')}`;
}
