import { useKinds } from '../../api/kinds';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Menu } from '../../ui/Menu';
import { PageHead } from '../../ui/Panel';
import { requestOf } from '../../sheet/selection';
import type { SheetView } from '../../sheet/sheetQuery';
import type { useSheetPage } from '../../sheet/useSheetPage';
import { lookOf } from '../../sheet/views/look';
import { ViewsMenu } from '../../sheet/views/ViewsMenu';

interface Props {
  note: string | undefined;
  view: SheetView;
  views: { value: SheetView; label: string }[];
  page: ReturnType<typeof useSheetPage>;
  onView: (view: SheetView) => void;
}

/** What is looked at in the structure, and what can be added, cleaned up and taken out. */
export function StructureHead({ note, view, views, page, onView }: Props) {
  const kinds = useKinds();
  const { look, setLook, keys, query, setOpen, setSelection } = page;
  return (
    <PageHead title="Structure" note={note}>
      <Choice label="Show" value={view} options={views} onChange={onView} />
      <ViewsMenu
        view={view}
        columns={keys}
        onColumns={(next) => setLook({ ...look, columns: { ...look.columns, [view]: next } })}
        look={() => ({
          request: { ...requestOf(query), stepId: null, campaignId: null, adGroupId: null },
          columns: keys,
        })}
        onOpen={(saved) => {
          const opened = lookOf(saved, look);
          setSelection({ rows: new Map(), all: null });
          setLook(opened.look, { view: opened.view === 'outline' ? null : opened.view, step: null });
        }}
      />
      <Menu
        trigger={<Button>Clean up…</Button>}
        entries={[
          { label: 'Combine words into keywords…', onSelect: () => setOpen({ what: 'combine' }) },
          { label: 'Duplicate and competing keywords…', onSelect: () => setOpen({ what: 'duplicates' }) },
        ]}
      />
      <Button onClick={() => setOpen({ what: 'takeOut' })}>Take out…</Button>
      <Menu
        trigger={
          <Button tone="plum" data-adds>
            Add…
          </Button>
        }
        entries={kinds.inLists.map(({ kind }) => ({
          label: kinds.title(kind),
          onSelect: () => setOpen({ what: 'add', kind }),
        }))}
      />
    </PageHead>
  );
}
