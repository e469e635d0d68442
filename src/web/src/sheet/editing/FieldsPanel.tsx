import { useState } from 'react';
import type { SheetRow } from '../../api/client';
import type { ItemField } from '../../api/kinds';
import { useCommand } from '../../api/hooks';
import { useAccount } from '../../api/account';
import { Panel } from '../../ui/Panel';
import { FieldEditor, inputOf, isSame, type Input } from './FieldEditor';

/** The other fields of one item. Each edit is kept at once. */
export function FieldsPanel({ row, fields }: { row: SheetRow; fields: readonly ItemField[] }) {
  return (
    <Panel title="Settings">
      <div className="space-y-2">
        {fields.map((field) => (
          <OneField key={`${field.name}${JSON.stringify(row.values[field.name])}`} row={row} field={field} />
        ))}
      </div>
    </Panel>
  );
}

function OneField({ row, field }: { row: SheetRow; field: ItemField }) {
  const account = useAccount();
  const before = inputOf(field, row.values[field.name], account);
  const [value, setValue] = useState<Input>(before);
  const [problem, setProblem] = useState<string | null>(null);
  const run = useCommand({ onProblem: (told) => setProblem(told.message) });
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
          run.mutate({
            type: 'setFields',
            items: [{ kind: row.kind, id: row.id }],
            values: { [field.name]: next },
            seen: [{ kind: row.kind, id: row.id, version: row.version }],
          });
      }}
    />
  );
}
