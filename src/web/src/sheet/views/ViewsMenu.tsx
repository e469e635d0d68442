import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import { answer, api, type Schemas } from '../../api/client';
import { tell } from '../../api/hooks';
import { useAccount } from '../../api/account';
import { useKinds } from '../../api/kinds';
import { Button } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { CheckField, TextField } from '../../ui/Field';
import { Menu } from '../../ui/Menu';
import { columnsOf, usualColumns } from './columns';
import type { SheetView } from '../sheetQuery';

interface Props {
  look: () => Schemas['SheetLook'];
  onOpen: (look: Schemas['SheetLook']) => void;
  view: SheetView;
  columns: readonly string[];
  onColumns: (columns: string[]) => void;
}

/** Saved views, and which columns there are in which order. */
export function ViewsMenu({ look, onOpen, view, columns, onColumns }: Props) {
  const account = useAccount();
  const queries = useQueryClient();
  const [dialog, setDialog] = useState<'save' | 'columns' | null>(null);
  const path = { accountId: account.id };
  const views = useQuery({
    queryKey: [account.id, 'views'],
    queryFn: () => answer(api.GET('/api/accounts/{accountId}/views', { params: { path } })),
  });
  const change = async (work: () => Promise<unknown>, said: string) => {
    try {
      await work();
      toast(said);
      setDialog(null);
    } catch (error) {
      tell(error);
    }
    await queries.invalidateQueries({ queryKey: [account.id, 'views'] });
  };
  const save = (name: string) =>
    change(
      () =>
        answer(
          api.PUT('/api/accounts/{accountId}/views/{name}', {
            params: { path: { ...path, name } },
            body: look(),
          }),
        ),
      `Saved as “${name}”.`,
    );
  const remove = (name: string) =>
    change(
      () =>
        answer(api.DELETE('/api/accounts/{accountId}/views/{name}', { params: { path: { ...path, name } } })),
      `“${name}” is no view any more.`,
    );
  return (
    <>
      <Menu
        trigger={<Button>Views…</Button>}
        entries={[
          ...(views.data ?? []).map((each) => ({
            label: <b className="font-semibold">{each.name}</b>,
            onSelect: () => onOpen(each.look),
          })),
          { label: 'Save what is shown…', onSelect: () => setDialog('save') },
          { label: 'Columns…', onSelect: () => setDialog('columns') },
        ]}
      />
      {dialog === 'save' && (
        <SaveDialog
          names={(views.data ?? []).map((each) => each.name)}
          onSave={(name) => void save(name)}
          onRemove={(name) => void remove(name)}
          onClose={() => setDialog(null)}
        />
      )}
      {dialog === 'columns' && (
        <ColumnsDialog view={view} columns={columns} onColumns={onColumns} onClose={() => setDialog(null)} />
      )}
    </>
  );
}

interface SaveProps {
  names: readonly string[];
  onSave: (name: string) => void;
  onRemove: (name: string) => void;
  onClose: () => void;
}

function SaveDialog({ names, onSave, onRemove, onClose }: SaveProps) {
  const [name, setName] = useState('');
  return (
    <Dialog
      open
      onClose={onClose}
      title="Save what is shown"
      description="Filter, order, columns and period under a name, for you at this account."
    >
      <form
        className="flex items-end gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          onSave(name.trim());
        }}
      >
        <TextField
          label="Name"
          autoFocus
          className="flex-1"
          value={name}
          hint={names.includes(name.trim()) ? 'The view of this name is replaced.' : undefined}
          onChange={(event) => setName(event.target.value)}
        />
        <Button type="submit" tone="ember" disabled={!name.trim()}>
          Save
        </Button>
      </form>
      {names.length > 0 && (
        <ul className="mt-3 space-y-1">
          {names.map((each) => (
            <li key={each} className="flex items-center justify-between">
              {each}
              <Button tone="quiet" aria-label={`Remove the view ${each}`} onClick={() => onRemove(each)}>
                Remove
              </Button>
            </li>
          ))}
        </ul>
      )}
    </Dialog>
  );
}

interface ColumnsProps {
  view: SheetView;
  columns: readonly string[];
  onColumns: (columns: string[]) => void;
  onClose: () => void;
}

function ColumnsDialog({ view, columns, onColumns, onClose }: ColumnsProps) {
  const kinds = useKinds();
  const known = columnsOf(view, kinds).filter((column) => column.key !== 'name');
  const shown = columns.filter((key) => known.some((column) => column.key === key));
  const hidden = known.filter((column) => !shown.includes(column.key));
  const move = (key: string, by: number) => {
    const next = shown.filter((each) => each !== key);
    next.splice(Math.max(0, shown.indexOf(key) + by), 0, key);
    onColumns(['name', ...next]);
  };
  const toggle = (key: string, on: boolean) =>
    onColumns(['name', ...(on ? [...shown, key] : shown.filter((each) => each !== key))]);
  const title = (key: string) => known.find((column) => column.key === key)?.title ?? key;
  return (
    <Dialog
      open
      onClose={onClose}
      title="Columns"
      description="The item itself always stands first."
      footer={<Button onClick={() => onColumns(usualColumns(view, kinds))}>As usual</Button>}
    >
      <ul className="space-y-0.5">
        {shown.map((key, place) => (
          <li key={key} className="flex items-center gap-2">
            <span className="flex-1">
              <CheckField label={title(key)} checked onChange={(on) => toggle(key, on)} />
            </span>
            <Button
              tone="quiet"
              aria-label={`${title(key)} further left`}
              disabled={place === 0}
              onClick={() => move(key, -1)}
            >
              ↑
            </Button>
            <Button
              tone="quiet"
              aria-label={`${title(key)} further right`}
              disabled={place === shown.length - 1}
              onClick={() => move(key, 1)}
            >
              ↓
            </Button>
          </li>
        ))}
        {hidden.map((column) => (
          <li key={column.key} className="py-1">
            <CheckField label={column.title} checked={false} onChange={(on) => toggle(column.key, on)} />
          </li>
        ))}
      </ul>
    </Dialog>
  );
}
