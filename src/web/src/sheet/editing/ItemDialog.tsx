import { useState, type FormEvent, type ReactNode } from 'react';
import type { ItemKind, SheetRow } from '../../api/client';
import { useKinds, type ItemField, type Kind } from '../../api/kinds';
import { useCommand } from '../../api/hooks';
import { useAccount } from '../../api/account';
import { Button } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { AdPreview } from './AdPreview';
import { FieldEditor, inputOf, isNothing, isSame, type Input } from './FieldEditor';
import { usePlace, type Place } from './PlaceChoice';

interface Props {
  kind: ItemKind;
  /** The item that is changed; none for a new one. */
  row: SheetRow | null;
  place: Place;
  onClose: () => void;
}

/** What is shown beside the form of a kind. */
const besides: Partial<Record<ItemKind, (values: Record<string, Input>) => ReactNode>> = {
  textAd: (values) => <AdPreview kind="textAd" values={values} />,
  responsiveAd: (values) => <AdPreview kind="responsiveAd" values={values} />,
  callAd: (values) => <AdPreview kind="callAd" values={values} />,
};

/** Makes or changes an item of any kind, field by field. */
export function ItemDialog({ kind, row, place, onClose }: Props) {
  const account = useAccount();
  const description = useKinds().of(kind);
  const fields = description.fields.filter((field) => field.form !== 'labels');
  const where = usePlace(row ? ['account'] : description.levels, place);
  const [before] = useState<Record<string, Input>>(() =>
    Object.fromEntries(fields.map((field) => [field.name, inputOf(field, row?.values[field.name], account)])),
  );
  const [values, setValues] = useState(before);
  const [problem, setProblem] = useState<{ field: string; text: string } | null>(null);
  const run = useCommand({
    onProblem: (told) => setProblem({ field: Object.keys(told.fields)[0] ?? '', text: told.message }),
  });
  const said = Object.fromEntries(
    Object.entries(values).filter(([name, value]) =>
      row ? !isSame(value, before[name] ?? '') : !isNothing(value),
    ),
  );
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (row && Object.keys(said).length === 0) onClose();
    else
      run.mutate(
        {
          type: 'put',
          kind,
          values: said,
          id: row?.id ?? null,
          place: row ? {} : where.ids,
          // What somebody else changed meanwhile is told, not overwritten.
          seen: row ? [{ kind, id: row.id, version: row.version }] : [],
        },
        { onSuccess: onClose },
      );
  };
  const beside = besides[kind]?.(values);
  const name = description.fields.find((field) => field.isName);
  const first = name?.name ?? fields[0]?.name;
  const known = fields.some((field) => field.name === problem?.field);
  return (
    <Dialog open wide={beside !== undefined} onClose={onClose} title={titleOf(description, row)}>
      <form onSubmit={submit} className={beside ? 'grid grid-cols-[1fr_260px] gap-5' : 'space-y-3'}>
        <div className="space-y-2.5">
          {!row && where.choices}
          {/* What the item is and says comes first, what is chosen last. */}
          {[...fields]
            .sort((one, other) => rankOf(one) - rankOf(other))
            .map((field) => (
              <FieldEditor
                key={field.name}
                field={field}
                value={values[field.name] ?? ''}
                autoFocus={field.name === first}
                problem={problem?.field === field.name ? problem.text : null}
                onChange={(value) => {
                  setProblem(null);
                  setValues({ ...values, [field.name]: value });
                }}
              />
            ))}
          {problem && !known && (
            <p role="alert" className="text-brick">
              {problem.text}
            </p>
          )}
        </div>
        <div className="flex flex-col gap-3">
          {beside}
          <div className="mt-auto flex justify-end gap-2">
            <Button onClick={onClose}>Leave</Button>
            <Button
              type="submit"
              tone="ember"
              disabled={
                run.isPending ||
                (!row && where.missing !== null) ||
                (name !== undefined && isNothing(values[name.name] ?? ''))
              }
            >
              {row ? `Change the ${description.noun}` : `Add the ${description.noun}`}
            </Button>
          </div>
        </div>
      </form>
    </Dialog>
  );
}

const order: readonly ItemField['form'][] = [
  'lines',
  'text',
  'amount',
  'percent',
  'distance',
  'whole',
  'return',
  'day',
  'references',
  'flags',
  'choice',
];

function rankOf(field: ItemField) {
  return field.isName ? -1 : order.indexOf(field.form);
}

function titleOf({ noun }: Kind, row: SheetRow | null) {
  return row ? `Change the ${noun}` : `Add ${/^[aeiou]/.test(noun) ? 'an' : 'a'} ${noun}`;
}
