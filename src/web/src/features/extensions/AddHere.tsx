import { useState, type ClipboardEvent } from 'react';
import type { Schemas } from '../../api/client';
import { useCommand } from '../../api/hooks';
import { useKinds, type ItemField } from '../../api/kinds';
import { lengthOf } from '../../items/values';
import { Button } from '../../ui/Button';
import { CheckField, TextField } from '../../ui/Field';
import { plural } from '../../ui/format';
import { Measure } from '../../ui/Marks';
import { Panel } from '../../ui/Panel';
import { placesOf, type Row } from './useExtensions';

type Item = Record<string, string>;

/** Writes extensions of one kind and adds them to any number of places at once. */
export function AddHere({ kind, rows }: { kind: Schemas['ItemKind']; rows: readonly Row[] }) {
  const kinds = useKinds();
  const [items, setItems] = useState<readonly Item[]>([{}]);
  const [problem, setProblem] = useState<string | null>(null);
  const [withHours, setWithHours] = useState(false);
  const fields = kinds
    .of(kind)
    .fields.filter((field) => field.isNeeded || (withHours && field.name === 'hours'));
  const [first, ...others] = fields;
  const run = useCommand({ onProblem: (told) => setProblem(told.message) });
  if (!first) return null;
  const isWritten = (item: Item) => (item[first.name] ?? '').trim() !== '';
  const written = items.filter(isWritten);
  const change = (at: number, field: ItemField, text: string) => {
    setProblem(null);
    const next = items.map((item, place) => (place === at ? { ...item, [field.name]: text } : item));
    // There is always room for one more.
    setItems(next.every(isWritten) ? [...next, {}] : next);
  };
  const paste = (event: ClipboardEvent, at: number) => {
    const lines = event.clipboardData
      .getData('text/plain')
      .split(/\r?\n/)
      .filter((line) => line.trim() !== '');
    if (lines.length < 2) return;
    event.preventDefault();
    const pasted = lines.map((line) =>
      Object.fromEntries(
        line.split('\t').flatMap((cell, column) => {
          const field = fields[column];
          return field ? [[field.name, cell.trim()]] : [];
        }),
      ),
    );
    setItems([...items.slice(0, at), ...pasted, ...items.slice(at + 1).filter(isWritten), {}]);
  };
  const add = () => {
    if (written.length === 0) return;
    run.mutate(
      { type: 'addItems', kind, items: written.map((item) => ({ ...item })), places: placesOf(rows) },
      { onSuccess: () => setItems([{}]) },
    );
  };
  return (
    <Panel title={`Add to ${plural(rows.length, 'cell')}`}>
      <form
        className="space-y-2"
        onSubmit={(event) => {
          event.preventDefault();
          add();
        }}
      >
        {items.map((item, at) => {
          const text = item[first.name] ?? '';
          return (
            <div key={at} className={others.length > 0 ? 'border-b border-line-soft pb-2' : undefined}>
              <div className="grid grid-cols-[minmax(0,1fr)_auto] items-end gap-2">
                <TextField
                  label={`${first.label} ${at + 1}`}
                  placeholder={at === 0 ? first.example : 'one more, or paste a list'}
                  value={text}
                  onPaste={(event) => paste(event, at)}
                  onChange={(event) => change(at, first, event.target.value)}
                />
                {first.limits.length && (
                  <span className="pb-1 text-[12.5px]">
                    <Measure length={lengthOf(text, first.limits.wideCounts)} longest={first.limits.length} />
                  </span>
                )}
              </div>
              {(isWritten(item) || at === 0) &&
                others.map((field) => (
                  <TextField
                    key={field.name}
                    label={field.label}
                    placeholder={field.example}
                    value={item[field.name] ?? ''}
                    onChange={(event) => change(at, field, event.target.value)}
                  />
                ))}
            </div>
          );
        })}
        <CheckField label="Only at some hours of the week" checked={withHours} onChange={setWithHours} />
        {problem && (
          <p role="alert" className="text-brick">
            {problem}
          </p>
        )}
        <Button
          type="submit"
          tone="ember"
          className="w-full"
          disabled={run.isPending || written.length === 0}
        >
          Add {kinds.count(written.length, kind)} to {plural(rows.length, 'place')}
        </Button>
      </form>
    </Panel>
  );
}
