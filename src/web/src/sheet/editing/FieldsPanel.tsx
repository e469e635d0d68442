import { useState } from 'react';
import type { SheetRow } from '../../api/client';
import type { ItemField } from '../../api/kinds';
import { useAccount } from '../../api/account';
import { Panel } from '../../ui/Panel';
import { useRowCommand, type OnConflict } from '../useRowCommand';
import { FieldEditor, inputOf, isSame, type Input } from './FieldEditor';

interface Props {
  row: SheetRow;
  fields: readonly ItemField[];
  onConflict: OnConflict;
}

/** The other fields of one item. Each edit is kept at once. */
export function FieldsPanel({ row, fields, onConflict }: Props) {
  return (
    <Panel title="Settings">
      <div className="space-y-2">
        {fields.map((field) => (
          <OneField key={field.name} row={row} field={field} onConflict={onConflict} />
        ))}
      </div>
    </Panel>
  );
}

function OneField({ row, field, onConflict }: { row: SheetRow; field: ItemField; onConflict: OnConflict }) {
  const account = useAccount();
  const before = inputOf(field, row.values[field.name], account);
  const [shown, setShown] = useState<Input>(before);
  const [value, setValue] = useState<Input>(before);
  const [problem, setProblem] = useState<string | null>(null);
  const { change } = useRowCommand(onConflict, (told) => setProblem(told.message));
  // What somebody else made of it meanwhile is shown, but not over what is being typed.
  if (!isSame(shown, before)) {
    setShown(before);
    if (isSame(value, shown)) setValue(before);
  }
  return (
    <FieldEditor
      field={field}
      value={value}
      problem={problem}
      onChange={(next) => {
        setProblem(null);
        setValue(next);
      }}
      onDone={(next) => {
        if (!isSame(next, before))
          change(row, {
            type: 'setFields',
            items: [{ kind: row.kind, id: row.id }],
            values: { [field.name]: next },
          });
      }}
    />
  );
}
