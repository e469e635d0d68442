import { eastAsianWidth } from 'get-east-asian-width';
import type { ReactNode } from 'react';
import type { AccountSummary, MatchType } from '../api/client';
import type { ItemField, ValueForm } from '../api/kinds';
import { fullDay, money } from '../ui/format';
import { MatchChip } from '../ui/Marks';

/** How values of one form are shown, and how they stand in a cell while they are typed, copied and pasted. */
interface Form {
  numeric?: boolean;
  shown: (value: unknown, field: ItemField, account: AccountSummary) => ReactNode;
  typed: (value: unknown, field: ItemField, account: AccountSummary) => string;
}

const asText = (value: unknown) => (value == null ? '' : String(value));
const asList = (value: unknown): readonly unknown[] => (Array.isArray(value) ? value : []);
const nameOf = (field: ItemField, key: unknown) =>
  field.choices.find((choice) => choice.key === key)?.name ?? asText(key);
const quiet = (text: string) => (
  <span className="text-ink-2" title={text || undefined}>
    {text}
  </span>
);

const forms: Record<ValueForm, Form> = {
  text: { shown: (value) => quiet(asText(value)), typed: asText },
  amount: {
    numeric: true,
    shown: (value, _, account) => money(value as number | null | undefined, account),
    typed: (value, _, account) => asText(value).replace('.', account.decimalMark),
  },
  percent: {
    numeric: true,
    shown: (value) =>
      value == null
        ? null
        : `${Number(value) < 0 ? '−' : '+'}${Math.abs(Number(value)).toLocaleString('en-GB')}%`,
    typed: (value, _, account) =>
      value == null
        ? ''
        : `${Number(value) < 0 ? '' : '+'}${asText(value).replace('.', account.decimalMark)}%`,
  },
  distance: {
    numeric: true,
    shown: (value) => (value == null ? null : `${Number(value).toLocaleString('en-GB')} km`),
    typed: (value, _, account) =>
      value == null ? '' : `${asText(value).replace('.', account.decimalMark)} km`,
  },
  whole: {
    numeric: true,
    shown: (value) => (value == null ? null : Number(value).toLocaleString('en-GB')),
    typed: asText,
  },
  return: {
    numeric: true,
    shown: (value) => (value == null ? null : `${Number(value).toLocaleString('en-GB')}%`),
    typed: (value, _, account) =>
      value == null ? '' : `${asText(value).replace('.', account.decimalMark)}%`,
  },
  day: { shown: (value) => (value ? fullDay(asText(value)) : null), typed: asText },
  choice: {
    shown: (value, field) => (value == null ? null : nameOf(field, value)),
    typed: (value, field) => (value == null ? '' : nameOf(field, value)),
  },
  flags: {
    shown: (value, field) =>
      quiet(
        asList(value)
          .map((key) => nameOf(field, key))
          .join(' + '),
      ),
    typed: (value, field) =>
      asList(value)
        .map((key) => nameOf(field, key))
        .join(' + '),
  },
  lines: {
    shown: (value) => quiet(asList(value).join(' · ')),
    typed: (value) => asList(value).join(' | '),
  },
  labels: {
    shown: (value) => <Labels labels={asList(value) as readonly string[]} />,
    typed: (value) => asList(value).join('; '),
  },
  references: {
    shown: (value) => asList(value).length.toLocaleString('en-GB'),
    typed: (value) => asText(asList(value).length || ''),
  },
};

/** Fields that are shown in a way of their own, by their name. */
const special: Partial<Record<string, (value: unknown, negative: boolean) => ReactNode>> = {
  match: (value, negative) =>
    value == null ? null : <MatchChip match={value as MatchType} negative={negative} />,
  state: (value) => (value === 'paused' ? 'paused' : null),
};

export function isNumeric(field: ItemField): boolean {
  return forms[field.form].numeric ?? false;
}

/** A value in a cell of the sheet. */
export function shown(
  field: ItemField,
  value: unknown,
  account: AccountSummary,
  negative = false,
): ReactNode {
  const own = special[field.name];
  return own ? own(value, negative) : forms[field.form].shown(value, field, account);
}

/** A value as it is typed: what the server reads back as the same; of several parts, one alone. */
export function typed(field: ItemField, value: unknown, account: AccountSummary, part?: number): string {
  if (part !== undefined) return asText(asList(value)[part - 1]);
  return forms[field.form].typed(value, field, account);
}

/** Can be edited in a cell, as one text. */
export function isCell(field: ItemField): boolean {
  return field.form !== 'references';
}

function Labels({ labels }: { labels: readonly string[] }) {
  return (
    <span className="flex gap-1 overflow-hidden" title={labels.join('; ')}>
      {labels.map((label) => (
        <span key={label} className="rounded-sm bg-sunk px-1.5 text-[12px] text-ink-2">
          {label}
        </span>
      ))}
    </span>
  );
}

const segmenter = new Intl.Segmenter('en', { granularity: 'grapheme' });

/** Characters as people count them (UAX #29); wide ones (UAX #11) as the network counts them: the server counts the same. */
export function lengthOf(text: string, wideCounts = 1): number {
  const clusters = [...segmenter.segment(text)];
  return wideCounts === 1
    ? clusters.length
    : clusters.reduce(
        (sum, { segment }) => sum + (eastAsianWidth(segment.codePointAt(0) ?? 0) === 2 ? wideCounts : 1),
        0,
      );
}
