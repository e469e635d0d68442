import { useState } from 'react';
import { useAccount } from '../../api/account';
import type { SheetRow } from '../../api/client';
import { useCommand } from '../../api/hooks';
import type { ItemField } from '../../api/kinds';
import { typed } from '../../items/values';
import { FieldEditor, inputOf, isSame, type Input } from '../../sheet/editing/FieldEditor';
import { Button } from '../../ui/Button';
import { plural } from '../../ui/format';
import { goHome } from '../../ui/home';
import { Panel } from '../../ui/Panel';

interface Props {
  campaign: SheetRow;
  others: readonly SheetRow[];
  field: ItemField;
}

/** One setting of a campaign: what it means, and giving it to the others. */
export function SettingSide({ campaign, others, field }: Props) {
  const account = useAccount();
  const before = inputOf(field, campaign.values[field.name], account);
  const [value, setValue] = useState(before);
  const [problem, setProblem] = useState<string | null>(null);
  const run = useCommand({ onProblem: (told) => setProblem(told.message) });
  const set = (rows: readonly SheetRow[], next: Input) => {
    if (run.isPending) return;
    setProblem(null);
    run.mutate({
      type: 'setFields',
      items: rows.map(({ kind, id }) => ({ kind, id })),
      values: { [field.name]: next },
      // What a colleague set meanwhile is told, not overwritten.
      seen: rows.map(({ kind, id, version }) => ({ kind, id, version })),
    });
    goHome();
  };
  const text = typed(field, campaign.values[field.name], account);
  const different = others.filter((other) => typed(field, other.values[field.name], account) !== text);
  return (
    <>
      <h2 className="shrink-0 truncate text-[15px]" title={campaign.name}>
        {campaign.name}
      </h2>
      <Panel>
        <FieldEditor
          field={field}
          value={value}
          problem={problem}
          onChange={(next) => {
            setProblem(null);
            setValue(next);
          }}
          onDone={(next) => !isSame(next, before) && set([campaign], next)}
        />
        <p className="mt-1.5 text-[12.5px] text-ink-2">{field.meaning}</p>
      </Panel>
      {different.length > 0 && (
        <Button onClick={() => set(different, before)}>
          Give {plural(different.length, 'other campaign')} {text ? `“${text}”` : 'nothing here either'}
        </Button>
      )}
    </>
  );
}
