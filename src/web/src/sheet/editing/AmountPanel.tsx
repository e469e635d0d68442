import { useState } from 'react';
import type { Command, SheetRow } from '../../api/client';
import { amountIn, useKinds, type ItemField } from '../../api/kinds';
import { useAccount } from '../../api/account';
import { money } from '../../ui/format';
import { Button } from '../../ui/Button';
import { TextField } from '../../ui/Field';
import { Panel } from '../../ui/Panel';
import type { Chosen } from '../selection';
import { useRowCommand, type OnConflict } from '../useRowCommand';

interface Props {
  field: ItemField;
  /** The selected rows that have the field, where they are named one by one. */
  rows: readonly SheetRow[];
  chosen: Chosen;
  /** The item, when it is one: it is changed at once; several are shown first. */
  single: SheetRow | undefined;
  /** Can be left to what the items stand in. */
  inherits: boolean;
  onPreview: (command: Command) => void;
  onConflict: OnConflict;
}

/** What holds an amount that changes; Enter in any of them sets it. */
const bounding = [
  ['atLeast', 'At least', '0.20'],
  ['atMost', 'At most', '3.00'],
  ['roundTo', 'In steps of', '0.05'],
] as const;

/** Sets, raises or lowers an amount of all that is selected. What is typed goes to the server as it is. */
export function AmountPanel({ field, rows, chosen, single, inherits, onPreview, onConflict }: Props) {
  const account = useAccount();
  const kinds = useKinds();
  const [text, setText] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  // The version of the row on which typing began: what somebody else makes of it meanwhile is told, not overwritten.
  const [seen, setSeen] = useState<number | null>(null);
  const [bounds, setBounds] = useState({ roundTo: '', atLeast: '', atMost: '' });
  const run = useRowCommand(onConflict, (told) => setProblem(told.message));
  const amounts = rows.map((row) => amountIn(row, field.name));
  const known = amounts.filter((amount) => amount !== null);
  const now = nowOf(
    rows,
    field,
    known,
    (amount) => money(amount, account),
    (kind) => kinds.noun(kind),
  );
  const set = (given: string) => {
    setProblem(null);
    const said = Object.fromEntries(Object.entries(bounds).filter(([, bound]) => bound.trim() !== ''));
    const command: Command = {
      type: 'setFields',
      ...chosen,
      values: { [field.name]: given },
      ...(given !== '' && Object.keys(said).length > 0 ? { bounds: said } : {}),
    };
    if (single)
      run.change({ ...single, version: seen ?? single.version }, command, () => {
        setText('');
        setSeen(null);
      });
    else {
      onPreview(command);
      setText('');
    }
  };
  // What is inherited can be raised and lowered too.
  const empty =
    rows.length > 0 && known.length === 0 && rows.every((row) => row.inherited[field.name] === undefined);
  return (
    <Panel title={field.label}>
      {now !== null && (
        <div className="mb-1.5">
          Now <b className="font-semibold">{now}</b>
        </div>
      )}
      <form
        data-amount
        onSubmit={(event) => {
          event.preventDefault();
          if (text.trim()) set(text);
        }}
      >
        <div className="flex items-start gap-1.5">
          <TextField
            label={`New ${field.lowLabel}`}
            hideLabel
            className="flex-1"
            placeholder="1.20, +0.10 or −10%"
            value={text}
            problem={problem}
            onChange={(event) => {
              setText(event.target.value);
              setSeen((before) => before ?? single?.version ?? null);
              setProblem(null);
            }}
          />
          <Button
            type="submit"
            tone="plum"
            tabIndex={-1}
            aria-label={`Set ${field.lowLabel}`}
            disabled={!text.trim() || run.isPending}
          >
            Set
          </Button>
        </div>
        <div className="mt-1 grid grid-cols-3 gap-1.5">
          {bounding.map(([name, label, example]) => (
            <TextField
              key={name}
              label={label}
              placeholder={example}
              value={bounds[name]}
              onChange={(event) => setBounds({ ...bounds, [name]: event.target.value })}
            />
          ))}
        </div>
      </form>
      <div className="mt-1.5 flex flex-wrap gap-1.5">
        <Button disabled={empty} aria-label={`Raise ${field.lowLabel} by 10%`} onClick={() => set('+10%')}>
          +10%
        </Button>
        <Button disabled={empty} aria-label={`Lower ${field.lowLabel} by 10%`} onClick={() => set('−10%')}>
          −10%
        </Button>
        {inherits && <Button onClick={() => set('')}>Inherit</Button>}
      </div>
    </Panel>
  );
}

function nowOf(
  rows: readonly SheetRow[],
  field: ItemField,
  known: readonly number[],
  written: (amount: number) => string,
  noun: (kind: NonNullable<ItemField['inheritedFrom']>) => string,
): string | null {
  if (rows.length === 0) return null;
  if (known.length === 0)
    return field.inheritedFrom && rows.some((row) => row.inherited[field.name] !== undefined)
      ? `the ${noun(field.inheritedFrom)}’s`
      : 'none';
  const [least, most] = [Math.min(...known), Math.max(...known)];
  if (least === most) return written(least) + (known.length < rows.length ? ' or none' : '');
  return `${written(least)} to ${written(most)}`;
}
