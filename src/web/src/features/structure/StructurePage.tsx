import { useCallback, useDeferredValue, useMemo, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import type { Command, Schemas, SheetRow } from '../../api/client';
import { useAccount } from '../../api/account';
import { plural } from '../../ui/format';
import { useScope } from '../../app/scope';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Menu } from '../../ui/Menu';
import { Empty, PageHead } from '../../ui/Panel';
import { useKinds } from '../../api/kinds';
import { chosenColumns, usualColumns } from '../../sheet/views/columns';
import { FilterBar } from '../../sheet/views/FilterBar';
import { isFiltered, lookOf, plainLook, queryOf, type Look } from '../../sheet/views/look';
import { asked, type Open } from '../../sheet/open';
import { noSelection, requestOf, selectAll, sizeOf, type Selection } from '../../sheet/selection';
import { SelectionPanel, type BulkEdit } from '../../sheet/editing/SelectionPanel';
import { Sheet } from '../../sheet/Sheet';
import type { SheetView } from '../../sheet/sheetQuery';
import { SheetDialogs } from '../../sheet/SheetDialogs';
import { TotalsBar } from '../../sheet/TotalsBar';
import { useStoredLook } from '../../sheet/views/useStoredLook';
import { ViewsMenu } from '../../sheet/views/ViewsMenu';

/** Commands whose new rows are selected afterwards. */
const makesNew: ReadonlySet<Command['type'] | undefined> = new Set([
  'bringBack',
  'copy',
  'combineWords',
  'addMatchTypes',
  'splitByMatchType',
  'crossNegatives',
]);

export function StructurePage() {
  const account = useAccount();
  const { campaignId, adGroupId } = useScope();
  const [parameters, setParameters] = useSearchParams();
  const kinds = useKinds();
  const views: { value: SheetView; label: string }[] = [
    { value: 'outline', label: 'Outline' },
    ...kinds.inOutline.map(({ kind }) => ({ value: kind, label: kinds.title(kind) })),
    ...kinds.staying.map((each) => ({ value: each.kind, label: `The ${each.noun}` })),
  ];
  const view = (views.find((each) => each.value === parameters.get('view'))?.value ??
    'outline') satisfies SheetView;
  const stepId = Number(parameters.get('step')) || null;
  const [look, setLook] = useStoredLook();
  const shown = useDeferredValue(look);
  const [foldedCampaigns, setFoldedCampaigns] = useState<number[]>([]);
  const [foldedAdGroups, setFoldedAdGroups] = useState<number[]>([]);
  const [selection, setSelection] = useState<Selection>(noSelection);
  const [open, setOpen] = useState<Open | null>(() => asked(parameters.get('add'), kinds));
  const [counted, setCounted] = useState<{ total: number; counts?: Schemas['KindCount'][] }>({ total: 0 });

  const query = useMemo(
    () => queryOf(shown, view, { campaignId, adGroupId, stepId, foldedCampaigns, foldedAdGroups }),
    [shown, view, campaignId, adGroupId, stepId, foldedCampaigns, foldedAdGroups],
  );
  const arranged = look.columns[view];
  const keyList = (arranged ?? usualColumns(view, kinds)).join(' ');
  const columns = useMemo(() => chosenColumns(view, keyList.split(' '), kinds), [view, keyList, kinds]);
  const keys = keyList.split(' ');

  const set = useCallback(
    (changes: Record<string, string | null>) =>
      setParameters((current) => {
        const next = new URLSearchParams(current);
        for (const [name, value] of Object.entries(changes)) {
          if (value === null) next.delete(name);
          else next.set(name, value);
        }
        return next;
      }),
    [setParameters],
  );
  const onLook = (next: Look) => {
    setSelection(noSelection);
    setLook(next);
  };
  const onSort = useCallback(
    (by: string) =>
      setLook((current) => ({
        ...current,
        sort:
          current.sort?.by === by
            ? current.sort.descending
              ? null
              : { by, descending: true }
            : { by, descending: false },
      })),
    [setLook],
  );
  const onFold = useCallback((row: SheetRow) => {
    const toggled = (ids: number[]) =>
      ids.includes(row.id) ? ids.filter((id) => id !== row.id) : [...ids, row.id];
    if (row.kind === 'campaign') setFoldedCampaigns(toggled);
    else setFoldedAdGroups(toggled);
  }, []);
  const onCounts = useCallback(
    (total: number, counts: Schemas['KindCount'][] | undefined) => setCounted({ total, counts }),
    [],
  );

  /** What a change touched stays selected; new things and rows that no filter can find again are shown by their step. */
  const onDone = (result: Schemas['CommandAnswer'], command: Command) => {
    setOpen(null);
    if (command.type === 'remove') setSelection(noSelection);
    else if (result.stepId && (selection.all || makesNew.has(command.type))) showStep(result.stepId);
  };
  const showStep = (step: number) => {
    setLook({ ...plainLook, columns: look.columns, figureDays: look.figureDays });
    set({ step: String(step) });
    setSelection(
      selectAll(
        queryOf({ ...plainLook, figureDays: look.figureDays }, view, {
          campaignId,
          adGroupId,
          stepId: step,
          foldedCampaigns: [],
          foldedAdGroups: [],
        }),
        0,
      ),
    );
  };
  // How many a step touched is known when its rows are: the selection then counts them.
  const counts = counted.counts;
  const current: Selection =
    selection.all && selection.all.total === 0
      ? { ...selection, all: { ...selection.all, total: counted.total } }
      : selection;
  const filtered = isFiltered(look) || stepId !== null;
  const note =
    counts &&
    (view === 'outline'
      ? counts
          .filter((each) => each.count > 0)
          .map((each) => kinds.count(each.count, each.kind))
          .join(' · ')
      : plural(counted.total, 'row'));
  const first = selection.all ? undefined : [...selection.rows.values()][0];
  const place = { campaignId: first?.campaignId ?? null, adGroupId: first?.adGroupId ?? null };
  const clear = () => {
    onLook({ ...plainLook, columns: look.columns, figureDays: look.figureDays });
    set({ step: null });
  };

  const onKeys = (event: React.KeyboardEvent) => {
    if (!event.altKey || event.ctrlKey) return;
    if (event.code === 'KeyO') {
      event.preventDefault();
      setOpen({ what: 'takeOut' });
    }
    if (sizeOf(current) === 0) return;
    const edits: Record<string, BulkEdit> = { KeyT: 'texts', KeyC: 'copy', KeyL: 'labels' };
    const edit = edits[event.code];
    if (!edit) return;
    event.preventDefault();
    setOpen({ what: 'bulk', edit });
  };

  return (
    <div className="grid h-full grid-cols-1 min-[900px]:grid-cols-[minmax(0,1fr)_290px]" onKeyDown={onKeys}>
      <section aria-label="Sheet" className="flex min-h-0 min-w-0 flex-col">
        <PageHead title="Structure" note={note}>
          <Choice
            label="Show"
            value={view}
            options={views}
            onChange={(next) => {
              setSelection(noSelection);
              set({ view: next === 'outline' ? null : next });
            }}
          />
          <ViewsMenu
            view={view}
            columns={keys}
            onColumns={(next) => setLook({ ...look, columns: { ...look.columns, [view]: next } })}
            look={() => ({
              request: {
                ...query,
                foldedCampaigns: [],
                foldedAdGroups: [],
                stepId: null,
                campaignId: null,
                adGroupId: null,
              },
              columns: keys,
            })}
            onOpen={(saved) => {
              const opened = lookOf(saved, look);
              onLook(opened.look);
              set({ view: opened.view === 'outline' ? null : opened.view, step: null });
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
            trigger={<Button tone="plum">Add…</Button>}
            entries={kinds.inOutline.map(({ kind }) => ({
              label: kinds.title(kind),
              onSelect: () => setOpen({ what: 'add', kind }),
            }))}
          />
        </PageHead>
        <FilterBar
          view={view}
          look={look}
          onLook={onLook}
          step={stepId === null ? null : 'Only what one step touched'}
          onAllSteps={() => {
            setSelection(noSelection);
            set({ step: null });
          }}
        />
        <Sheet
          query={query}
          columns={columns}
          onSort={onSort}
          onFold={onFold}
          selection={current}
          onSelect={setSelection}
          onPreview={(command) => setOpen({ what: 'preview', command })}
          onRemove={() =>
            setOpen({
              what: 'preview',
              command: current.all
                ? { type: 'remove', items: [], where: current.all.where }
                : { type: 'remove', items: [...current.rows.values()].map(({ kind, id }) => ({ kind, id })) },
            })
          }
          onOpenItem={(row) => setOpen({ what: 'item', row })}
          onCounts={onCounts}
          onConflict={(problem, command) => setOpen({ what: 'conflict', problem, command })}
          focus={parameters.get('focus')}
          focusField={parameters.get('field')}
        >
          <Empty title={look.removed ? 'Nothing removed' : filtered ? 'Nothing matches' : 'Nothing here yet'}>
            {filtered ? (
              <Button onClick={clear}>Show all</Button>
            ) : (
              <>
                Campaigns, ad groups, keywords, negatives and ads stand here and are changed here.{' '}
                <Link to={`/${account.id}/plan/intake`} className="font-semibold text-plum underline">
                  Bring in a list
                </Link>{' '}
                or add a campaign.
              </>
            )}
          </Empty>
        </Sheet>
        <TotalsBar query={query} selection={current} />
      </section>
      <aside
        aria-label="Selection"
        className="flex min-h-0 flex-col gap-3 overflow-auto border-l border-line-strong bg-paper p-3"
      >
        <SelectionPanel
          selection={current}
          onPreview={(command) => setOpen({ what: 'preview', command })}
          onOpenItem={(row) => setOpen({ what: 'item', row })}
          onConflict={(problem, command) => setOpen({ what: 'conflict', problem, command })}
          onBulk={(edit) => setOpen({ what: 'bulk', edit })}
        />
      </aside>
      <SheetDialogs
        open={parameters.has('takeOut') ? { what: 'takeOut' } : open}
        selection={current}
        shown={
          !look.removed && (filtered || view !== 'outline')
            ? { count: counted.total, where: requestOf(query) }
            : undefined
        }
        place={place}
        onClose={() => {
          setOpen(null);
          if (parameters.has('takeOut')) set({ takeOut: null });
        }}
        onOpen={setOpen}
        onDone={onDone}
        onStep={(step) => {
          setOpen(null);
          if (step) showStep(step);
        }}
      />
    </div>
  );
}
