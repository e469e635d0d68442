import { useEffect, useRef, useState } from 'react';
import type { AccountSummary, Command, SheetRow } from '../../api/client';
import type { ItemField } from '../../api/kinds';
import { isNumeric, typed } from '../../items/values';
import { ChoiceCell } from './ChoiceCell';

interface Props {
  row: SheetRow;
  field: ItemField;
  /** Number of the part that the cell holds, from 1, where it is one of several. */
  part?: number;
  account: AccountSummary;
  startWith?: string;
  problem: string | null;
  onSave: (command: Command | null, then: Then) => void;
  onLeave: () => void;
}

/** Where the cursor goes once the edit is kept. */
export type Then = 'stay' | 'down' | 'left' | 'right';

/** Edits one cell: Enter keeps and goes down, Tab keeps and goes sideways, Esc leaves. What is typed is read by the server, as everywhere. */
export function CellEditor({ row, field, part, account, startWith, problem, onSave, onLeave }: Props) {
  const before = typed(field, row.values[field.name], account, part);
  const [text, setText] = useState(startWith ?? before);
  const input = useRef<HTMLInputElement>(null);
  const done = useRef(false);
  const [saving, setSaving] = useState(false);
  useEffect(() => {
    input.current?.focus();
    if (startWith === undefined) input.current?.select();
  }, [startWith]);
  useEffect(() => {
    if (problem) done.current = false;
  }, [problem]);

  const save = (value: string, then: Then = 'stay') => {
    if (done.current) return;
    done.current = true;
    setSaving(true);
    onSave(
      value.trim() === before
        ? null
        : {
            type: 'setCells',
            cells: [
              { item: { kind: row.kind, id: row.id }, field: field.name, text: value, part: part ?? null },
            ],
          },
      then,
    );
  };
  const keys = (event: React.KeyboardEvent) => {
    // What is kept takes no more keys: they are the page's, undo above all.
    if (done.current) return;
    event.stopPropagation();
    if (event.key === 'Escape') {
      done.current = true;
      onLeave();
    } else if (event.key === 'Enter' || event.key === 'Tab') {
      event.preventDefault();
      save(text, event.key === 'Enter' ? 'down' : event.shiftKey ? 'left' : 'right');
    }
  };
  const look = 'h-[23px] w-full rounded-[3px] border border-plum bg-white px-1.5 text-ink outline-none';
  const label = `Edit ${row.name}`;
  return (
    <span className="relative block w-full">
      {field.form === 'choice' ? (
        <ChoiceCell
          label={label}
          value={before}
          options={[
            ...(field.isClearable ? [{ value: '', label: `no ${field.lowLabel}` }] : []),
            ...field.choices.map((choice) => ({ value: choice.name, label: choice.name })),
          ]}
          onChoose={(next) => save(next, 'down')}
          onLeave={onLeave}
        />
      ) : (
        <input
          ref={input}
          aria-label={label}
          aria-invalid={problem ? true : undefined}
          value={text}
          readOnly={saving && !problem}
          className={`${look} ${isNumeric(field) ? 'text-right' : ''}`}
          onChange={(event) => setText(event.target.value)}
          onKeyDown={keys}
          onBlur={() => (problem ? onLeave() : save(text))}
        />
      )}
      {problem && (
        <span
          role="alert"
          className="absolute top-[25px] left-0 z-20 w-max max-w-80 rounded-sm bg-brick px-2 py-1 text-left text-[12.5px] whitespace-normal text-white"
        >
          {problem}
        </span>
      )}
    </span>
  );
}
