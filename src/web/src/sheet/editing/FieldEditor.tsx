import type { ReactNode } from 'react';
import type { AccountSummary } from '../../api/client';
import type { ItemField, ValueForm } from '../../api/kinds';
import { useCampaigns } from '../../api/hooks';
import { useAccount } from '../../api/account';
import { lengthOf, typed } from '../../items/values';
import { Choice } from '../../ui/Choice';
import { CheckField, TextField } from '../../ui/Field';
import { PlacePicker } from './PlacePicker';

/** What a person gives for a field: a text, or several. The server reads it. */
export type Input = string | string[];

interface Props {
  field: ItemField;
  value: Input;
  problem?: string | null;
  autoFocus?: boolean;
  onChange: (value: Input) => void;
  /** The person is done with the field, where each edit is kept at once. */
  onDone?: (value: Input) => void;
}

const several: ReadonlySet<ValueForm> = new Set(['flags', 'lines', 'references']);
const none = '(none)';

/** Most lines that are all in sight from the beginning. */
const mostInSight = 3;

/** Longest text whose letters are worth counting while it is typed. */
const countedLength = 300;

/** A value as it is before a person touches it; what a new item begins with, where nothing is said. */
export function inputOf(field: ItemField, value: unknown, account: AccountSummary): Input {
  const known = value ?? field.default;
  if (several.has(field.form)) return Array.isArray(known) ? known.map(String) : [];
  if (known == null && field.form === 'choice' && !field.isClearable) return field.choices[0]?.key ?? '';
  return field.form === 'choice' ? String(known ?? '') : typed(field, known, account);
}

export function isSame(one: Input, other: Input): boolean {
  return JSON.stringify(one) === JSON.stringify(other);
}

export function isNothing(value: Input): boolean {
  return Array.isArray(value) ? value.every((each) => each.trim() === '') : value.trim() === '';
}

/** The editor of a field, by the form of its values. */
export function FieldEditor(props: Props) {
  return editors[props.field.form](props);
}

const one = (value: Input) => (Array.isArray(value) ? value.join('; ') : value);
const all = (value: Input) => (Array.isArray(value) ? value : [value]);

function OneLine({ field, value, problem, autoFocus, onChange, onDone, ...more }: Props & Line) {
  const account = useAccount();
  const longest = field.limits.length ?? Infinity;
  return (
    <TextField
      label={
        <>
          {field.label}
          {longest <= countedLength && (
            <Length text={one(value)} longest={longest} wideCounts={field.limits.wideCounts} />
          )}
        </>
      }
      value={one(value)}
      problem={problem}
      autoFocus={autoFocus}
      hint={more.hint}
      placeholder={field.example}
      type={more.type}
      inputMode={field.form === 'amount' ? 'text' : undefined}
      before={field.form === 'amount' ? account.currencySign.trim() : undefined}
      className={
        ['amount', 'percent', 'distance', 'return', 'whole', 'day'].includes(field.form) ? 'w-40' : undefined
      }
      onChange={(event) => onChange(event.target.value)}
      onBlur={onDone && ((event) => onDone(event.target.value))}
      onKeyDown={onDone && ((event) => event.key === 'Enter' && event.currentTarget.blur())}
    />
  );
}

interface Line {
  hint?: string;
  type?: string;
}

const editors: Record<ValueForm, (props: Props) => ReactNode> = {
  text: (props) => (props.field.limits.oneOf ? <OneOf {...props} /> : <OneLine {...props} />),
  percent: (props) => <OneLine {...props} hint="Per cent more or less; −100% means never" />,
  distance: (props) => <OneLine {...props} hint="Kilometres; miles with mi" />,
  return: (props) => <OneLine {...props} hint="Per cent of what is spent, such as 400%; or 4x" />,
  whole: (props) => <OneLine {...props} />,
  amount: (props) => <OneLine {...props} hint={props.field.inheritedFrom ? 'Empty: inherited' : undefined} />,
  day: (props) => (
    <OneLine {...props} type="date" hint={props.field.isClearable ? 'Empty: no day' : undefined} />
  ),
  labels: (props) => <OneLine {...props} hint="Several with ; between" />,
  choice: ({ field, value, problem, onChange, onDone }) => (
    <div>
      <Choice
        label={field.label}
        value={one(value) || none}
        options={[
          ...(field.isClearable ? [{ value: none, label: `no ${field.lowLabel}` }] : []),
          ...field.choices.map((choice) => ({
            value: choice.key,
            label: field.isClearable ? `${field.lowLabel}: ${choice.name}` : choice.name,
          })),
        ]}
        onChange={(next) => {
          const given = next === none ? '' : next;
          onChange(given);
          onDone?.(given);
        }}
      />
      {problem && <div className="text-[12px] text-brick">{problem}</div>}
    </div>
  ),
  flags: ({ field, value, problem, onChange, onDone }) => (
    <fieldset>
      <legend className="mb-0.5 text-[12px] font-semibold text-ink-2">{field.label}</legend>
      {field.choices.map((choice) => (
        <CheckField
          key={choice.key}
          label={choice.name}
          checked={all(value).includes(choice.key)}
          onChange={(on) => {
            const next = on ? [...all(value), choice.key] : all(value).filter((each) => each !== choice.key);
            onChange(next);
            onDone?.(next);
          }}
        />
      ))}
      {problem && <div className="text-[12px] text-brick">{problem}</div>}
    </fieldset>
  ),
  lines: (props) => <Lines {...props} />,
  references: (props) => <References {...props} />,
};

/** A text of which the network knows just a few. */
function OneOf({ field, value, problem, autoFocus, onChange, onDone }: Props) {
  return (
    <div>
      <span aria-hidden className="mb-0.5 block text-[12px] font-semibold text-ink-2">
        {field.label}
      </span>
      <Choice
        label={field.label}
        isFirst={autoFocus}
        value={one(value) || none}
        options={[
          ...(one(value) ? [] : [{ value: none, label: `Choose…` }]),
          ...(field.limits.oneOf ?? []).map((known) => ({ value: known, label: known })),
        ]}
        onChange={(next) => {
          onChange(next);
          onDone?.(next);
        }}
      />
      {problem && <div className="text-[12px] text-brick">{problem}</div>}
    </div>
  );
}

function Lines({ field, value, problem, autoFocus, onChange, onDone }: Props) {
  const lines = all(value);
  const most = field.limits.most ?? lines.length + 1;
  const filledTo = lines.findLastIndex((line) => line.trim() !== '') + 1;
  // Of many lines, those that are written and one more are enough to see.
  const wanted = most > mostInSight ? Math.max(field.limits.fewest ?? 1, filledTo + 1) : most;
  const count = Math.max(Math.min(most, wanted), lines.length);
  const part = field.partName ?? field.lowLabel;
  const name = part.charAt(0).toUpperCase() + part.slice(1);
  const shown = Array.from({ length: count }, (_, place) => lines[place] ?? '');
  const longest = field.limits.length ?? Infinity;
  return (
    <div className="space-y-2">
      {shown.map((line, place) => (
        <div key={place} className="flex items-end gap-2">
          <TextField
            label={`${name} ${place + 1}`}
            className="flex-1"
            autoFocus={autoFocus && place === 0}
            value={line}
            onChange={(event) =>
              onChange(shown.map((each, other) => (other === place ? event.target.value : each)))
            }
            onBlur={onDone && (() => onDone(shown))}
          />
          <span className="w-14 pb-1.5 text-right">
            <Length text={line} longest={longest} wideCounts={field.limits.wideCounts} />
          </span>
        </div>
      ))}
      {problem && <div className="text-[12px] text-brick">{problem}</div>}
    </div>
  );
}

function Length({ text, longest, wideCounts }: { text: string; longest: number; wideCounts?: number }) {
  const length = lengthOf(text, wideCounts);
  return (
    <span className={length > longest ? 'ml-2 font-semibold text-brick' : 'ml-2 font-normal text-ink-3'}>
      {length} / {longest}
    </span>
  );
}

function References({ field, value, onChange, onDone }: Props) {
  const campaigns = useCampaigns();
  return (
    <PlacePicker
      label={field.label}
      places={(campaigns.data ?? []).map(({ id, name }) => ({ id, name }))}
      chosen={all(value).map(Number)}
      onChoose={(ids) => {
        const next = ids.map(String);
        onChange(next);
        onDone?.(next);
      }}
    />
  );
}
