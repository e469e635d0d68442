import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useAccount } from '../../api/account';
import { answer, api, type Command, type Schemas, type SheetRow } from '../../api/client';
import { useKinds } from '../../api/kinds';
import { FieldEditor, inputOf, isSame, type Input } from '../../sheet/editing/FieldEditor';
import { PreviewDialog } from '../../sheet/editing/PreviewDialog';
import { useRefresh } from '../../api/hooks';

interface Props {
  figure: Schemas['ExtensionFigure'];
  onClose: () => void;
}

/** One extension changed wherever it stands, in one step: what is not touched stays as it is in each place. */
export function EverywhereDialog({ figure, onClose }: Props) {
  const account = useAccount();
  const where: Schemas['SheetRequest'] = {
    kind: figure.kind,
    conditions: [{ field: 'name', test: 'is', values: [figure.written] }],
  };
  const first = useQuery({
    queryKey: [account.id, 'sheet', 'everywhere', where],
    queryFn: ({ signal }) =>
      answer(
        api.POST('/api/accounts/{accountId}/sheet', {
          params: { path: { accountId: account.id } },
          body: { ...where, limit: 1 },
          signal,
        }),
      ),
    select: (page) => page.rows[0] ?? null,
  });
  return first.data ? <Form row={first.data} figure={figure} where={where} onClose={onClose} /> : null;
}

interface FormProps {
  /** One of them: what it has stands in the fields. */
  row: SheetRow;
  figure: Schemas['ExtensionFigure'];
  where: Schemas['SheetRequest'];
  onClose: () => void;
}

function Form({ row, figure, where, onClose }: FormProps) {
  const account = useAccount();
  const refresh = useRefresh();
  const fields = useKinds()
    .of(figure.kind)
    .fields.filter((field) => field.form !== 'labels');
  const [before] = useState<Record<string, Input>>(() =>
    Object.fromEntries(fields.map((field) => [field.name, inputOf(field, row.values[field.name], account)])),
  );
  const [values, setValues] = useState(before);
  const said = Object.fromEntries(
    Object.entries(values).filter(([name, value]) => !isSame(value, before[name] ?? '')),
  );
  const command: Command | null =
    Object.keys(said).length > 0 ? { type: 'setFields', items: [], where, values: said } : null;
  return (
    <PreviewDialog
      title={`Change “${figure.says}” everywhere`}
      command={command}
      onClose={onClose}
      onDone={() => {
        void refresh(['extensions']);
        onClose();
      }}
    >
      <div className="grid grid-cols-2 gap-x-4 gap-y-2.5">
        {fields.map((field) => (
          <FieldEditor
            key={field.name}
            field={field}
            value={values[field.name] ?? ''}
            autoFocus={field.isName}
            onChange={(value) => setValues({ ...values, [field.name]: value })}
          />
        ))}
      </div>
    </PreviewDialog>
  );
}
