import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { useKinds } from '../../api/kinds';
import { useViews } from '../../api/views';
import { useGo } from '../../app/scope';
import { Button } from '../../ui/Button';
import { ColumnsDialog } from '../../ui/ColumnsDialog';
import { Menu } from '../../ui/Menu';
import { columnsOf, usualColumns } from './columns';
import { SaveViewDialog, ViewName } from './SaveViewDialog';
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
  const go = useGo();
  const [dialog, setDialog] = useState<'save' | 'columns' | null>(null);
  const views = useViews();
  return (
    <>
      <Menu
        trigger={<Button>Views…</Button>}
        entries={[
          ...views.all.map((each) => ({
            label: <ViewName view={each} here="sheet" />,
            onSelect: () => (each.look.results ? go('learn/results', each.look.results) : onOpen(each.look)),
          })),
          { label: 'Save what is shown…', onSelect: () => setDialog('save') },
          { label: 'Columns…', onSelect: () => setDialog('columns') },
        ]}
      />
      {dialog === 'save' && <SaveViewDialog views={views} look={look} onClose={() => setDialog(null)} />}
      {dialog === 'columns' && (
        <SheetColumns view={view} columns={columns} onColumns={onColumns} onClose={() => setDialog(null)} />
      )}
    </>
  );
}

interface ColumnsProps {
  view: SheetView;
  columns: readonly string[];
  onColumns: (columns: string[]) => void;
  onClose: () => void;
}

function SheetColumns({ view, columns, onColumns, onClose }: ColumnsProps) {
  const kinds = useKinds();
  return (
    <ColumnsDialog
      known={columnsOf(view, kinds).filter((column) => column.key !== 'name')}
      shown={columns}
      description="The item itself always stands first."
      onChange={(next) => onColumns(['name', ...next])}
      onUsual={() => onColumns(usualColumns(view, kinds))}
      onClose={onClose}
    />
  );
}
