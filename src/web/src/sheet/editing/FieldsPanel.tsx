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
  // What is being typed, and on which version of the row: what somebody else makes of it meanwhile is not shown over it.
  const [typed, setTyped] = useState<{ value: Input; version: number } | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const { change } = useRowCommand(onConflict, (told) => setProblem(told.message));
  return (
    <FieldEditor
      field={field}
      value={typed?.value ?? before}
      problem={problem}
      onChange={(next) => {
        setProblem(null);
        setTyped({ value: next, version: typed?.version ?? row.version });
      }}
      onDone={(next) => {
        if (isSame(next, before)) setTyped(null);
        else
          change(
            { ...row, version: typed?.version ?? row.version },
            {
              type: 'setFields',
              items: [{ kind: row.kind, id: row.id }],
              values: { [field.name]: next },
            },
            () => setTyped(null),
          );
      }}
    />
  );
}
