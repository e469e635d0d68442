import { useEffect, useRef, useState } from 'react';
import type { AccountSummary, Command, ItemState, MatchType, SheetRow } from '../../api/client';
import { matchNames } from '../../app/format';
import type { EditField } from './columns';

interface Props {
  row: SheetRow;
  field: EditField;
  account: AccountSummary;
  startWith?: string;
  problem: string | null;
  onSave: (command: Command | null) => void;
  onLeave: () => void;
}

const choices: Partial<Record<EditField, readonly { value: string; label: string }[]>> = {
  match: Object.entries(matchNames).map(([value, label]) => ({ value, label })),
  state: [
    { value: 'running', label: 'running' },
    { value: 'paused', label: 'paused' },
  ],
};

/** The command that an edit of one cell amounts to; none when it says nothing new or cannot be read. */
function commandOf(row: SheetRow, field: EditField, text: string): Command | null | 'unreadable' {
  const items = [{ kind: row.kind, id: row.id }];
  switch (field) {
    case 'name':
      return text.trim() === row.name
        ? null
        : { type: 'setText', item: { kind: row.kind, id: row.id }, text };
    case 'match':
      return { type: 'setMatchType', items, match: text as MatchType };
    case 'state':
      return { type: 'setState', items, state: text as ItemState };
    case 'labels':
    case 'finalUrl':
      return text.trim() === valueOf(row, field)
        ? null
        : { type: 'pasteCells', cells: [{ item: { kind: row.kind, id: row.id }, field, text }] };
    default: {
      if (text.trim() === '')
        return field === 'maxCpc' && row.maxCpc != null
          ? { type: 'changeAmount', items, field, operation: 'inherit', value: 0 }
          : null;
      const value = Number(text.replace(',', '.').replace(/[^0-9.]/g, ''));
      return Number.isFinite(value) && /\d/.test(text)
        ? { type: 'changeAmount', items, field, operation: 'set', value }
        : 'unreadable';
    }
  }
}

/** What stands in a cell, as it is typed. */
function valueOf(row: SheetRow, field: EditField): string {
  switch (field) {
    case 'labels':
      return row.labels.join('; ');
    case 'dailyBudget':
    case 'maxCpc':
      return String(row[field] ?? '');
    default:
      return row[field] ?? '';
  }
}

/** Edits one cell: Enter keeps, Esc leaves. */
export function CellEditor({ row, field, account, startWith, problem, onSave, onLeave }: Props) {
  const initial = startWith ?? valueOf(row, field);
  const [text, setText] = useState(initial);
  const [unreadable, setUnreadable] = useState(false);
  const input = useRef<HTMLInputElement & HTMLSelectElement>(null);
  const done = useRef(false);
  useEffect(() => {
    input.current?.focus();
    if (startWith === undefined) input.current?.select?.();
  }, [startWith]);
  useEffect(() => {
    if (problem) done.current = false;
  }, [problem]);

  const save = (value: string) => {
    if (done.current) return;
    const command = commandOf(row, field, value);
    if (command === 'unreadable') {
      setUnreadable(true);
      return;
    }
    done.current = true;
    onSave(command);
  };
  const keys = (event: React.KeyboardEvent) => {
    event.stopPropagation();
    if (event.key === 'Escape') {
      done.current = true;
      onLeave();
    } else if (event.key === 'Enter' || event.key === 'Tab') {
      event.preventDefault();
      save(text);
    }
  };
  const said = unreadable ? `Write the amount like 1.20 (${account.currency}).` : problem;
  const look = 'h-[23px] w-full rounded-[3px] border border-plum bg-white px-1.5 text-ink outline-none';
  const label = `Edit ${row.name}`;
  const options = choices[field];
  return (
    <span className="relative block w-full">
      {options ? (
        <select
          ref={input}
          aria-label={label}
          value={text}
          className={look}
          onChange={(event) => setText(event.target.value)}
          onKeyDown={keys}
          onBlur={() => save(text)}
        >
          {options.map((option) => (
            <option key={option.value} value={option.value}>
              {option.label}
            </option>
          ))}
        </select>
      ) : (
        <input
          ref={input}
          aria-label={label}
          aria-invalid={said ? true : undefined}
          value={text}
          className={`${look} ${field === 'maxCpc' || field === 'dailyBudget' ? 'text-right' : ''}`}
          onChange={(event) => {
            setUnreadable(false);
            setText(event.target.value);
          }}
          onKeyDown={keys}
          onBlur={() => (said ? onLeave() : save(text))}
        />
      )}
      {said && (
        <span
          role="alert"
          className="absolute top-[25px] left-0 z-20 w-max max-w-80 rounded-sm bg-brick px-2 py-1 text-left text-[12.5px] whitespace-normal text-white"
        >
          {said}
        </span>
      )}
    </span>
  );
}
