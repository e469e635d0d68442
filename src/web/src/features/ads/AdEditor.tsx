import { useRef, useState, type Dispatch, type SetStateAction } from 'react';
import type { ApiProblem, Command, SheetRow } from '../../api/client';
import { useKinds, type ItemField } from '../../api/kinds';
import { useAccount } from '../../api/account';
import { FieldEditor, inputOf, isSame, type Input } from '../../sheet/editing/FieldEditor';
import { ConflictDialog } from '../../sheet/editing/ConflictDialog';
import { useRowCommand } from '../../sheet/useRowCommand';
import { said } from './slots/lines';
import { Slots } from './slots/Slots';
import type { TextRead } from '../../items/useTexts';
import { useFreshAd } from './useAds';

interface Props {
  row: SheetRow;
  /** What stands in the form now, kept or not, for those who show it. */
  typed: Record<string, Input>;
  /** Its texts as the network reads them. */
  read: readonly TextRead[];
  onTyped: Dispatch<SetStateAction<Record<string, Input>>>;
}

/** What of an ad is written line by line. */
export const slotsOf = (fields: readonly ItemField[]) =>
  fields.filter((field) => field.form === 'lines' && field.isText);

const linesOf = (value: Input | undefined) => (Array.isArray(value) ? value : value ? [value] : []);

const without = (typed: Record<string, Input>, field: ItemField) =>
  Object.fromEntries(Object.entries(typed).filter(([name]) => name !== field.name));

/** The slots of an ad and its other fields. Each is kept when it is left; what is typed is never waited for. */
export function AdEditor({ row, typed, read, onTyped }: Props) {
  const account = useAccount();
  const kinds = useKinds();
  const fields = kinds.of(row.kind).fields.filter((field) => field.form !== 'labels');
  const [problem, setProblem] = useState<{ field: string; text: string } | null>(null);
  const [conflict, setConflict] = useState<{ problem: ApiProblem; command: Command } | null>(null);
  const run = useRowCommand(
    (told, command) => setConflict({ problem: told, command }),
    (told) => setProblem({ field: Object.keys(told.fields)[0] ?? '', text: told.message }),
    true,
  );
  const fresh = useFreshAd();
  const chain = useRef<Promise<void>>(Promise.resolve());
  const under = useRef(0);
  /** The version that one's own last edit left, and those on which fields are being typed: what others do meanwhile is told. */
  const own = useRef(0);
  const begun = useRef<Record<string, number>>({});
  const forget = (field: ItemField) => {
    begun.current = Object.fromEntries(Object.entries(begun.current).filter(([name]) => name !== field.name));
  };
  const before = (field: ItemField) => inputOf(field, row.values[field.name], account);
  const now = (field: ItemField) => typed[field.name] ?? before(field);
  const type = (field: ItemField, value: Input) => {
    setProblem(null);
    begun.current[field.name] ??= row.version;
    onTyped((current) => ({ ...current, [field.name]: value }));
  };
  const keep = (field: ItemField, value: Input) => {
    const next = field.form === 'lines' ? said(linesOf(value)) : value;
    const version = begun.current[field.name] ?? row.version;
    forget(field);
    if (under.current === 0 && isSame(next, before(field))) {
      onTyped((current) => without(current, field));
      return;
    }
    onTyped((current) => ({ ...current, [field.name]: value }));
    // One after the other, each on what the one before left.
    under.current++;
    chain.current = chain.current.then(async () => {
      const done = await run.changed(
        { ...row, version: Math.max(version, own.current) },
        { type: 'setFields', items: [{ kind: row.kind, id: row.id }], values: { [field.name]: next } },
      );
      under.current--;
      if (done) own.current = fresh(row).version;
      // What was typed since stays.
      if (done) onTyped((current) => (current[field.name] === value ? without(current, field) : current));
    });
  };
  const slots = slotsOf(fields);
  // What is written comes before what is chosen.
  const others = fields
    .filter((field) => !slots.includes(field))
    .sort((one, other) => Number(other.form === 'text') - Number(one.form === 'text'));
  return (
    <div className="flex flex-col gap-3">
      {slots.map((field) => (
        <Slots
          key={field.name}
          field={field}
          lines={linesOf(now(field))}
          read={read}
          problem={problem?.field === field.name ? problem.text : null}
          onType={(lines) => type(field, lines)}
          onKeep={(lines) => keep(field, lines)}
          onLeave={() => {
            forget(field);
            onTyped((current) => without(current, field));
          }}
        />
      ))}
      <section
        aria-label="Where it leads and when it shows"
        className="flex flex-wrap items-end gap-x-4 gap-y-2 rounded-lg border border-line bg-sheet px-3 pt-2 pb-3"
      >
        {others.map((field) => (
          <div key={field.name} className={field.form === 'text' ? 'min-w-64 flex-1 basis-full' : undefined}>
            {field.form === 'choice' && (
              <span aria-hidden className="mb-1 block text-[12.5px] font-semibold text-ink-2">
                {field.label}
              </span>
            )}
            <FieldEditor
              field={field}
              value={now(field)}
              problem={problem?.field === field.name ? problem.text : null}
              onChange={(value) => type(field, value)}
              onDone={(value) => keep(field, value)}
            />
          </div>
        ))}
      </section>
      {problem && !fields.some((field) => field.name === problem.field) && (
        <p role="alert" className="text-brick">
          {problem.text}
        </p>
      )}
      {conflict && (
        <ConflictDialog
          problem={conflict.problem}
          command={conflict.command}
          mine={linesOf(Object.values(typed).at(-1)).join(' · ')}
          onClose={() => {
            setConflict(null);
            onTyped({});
          }}
        />
      )}
    </div>
  );
}
