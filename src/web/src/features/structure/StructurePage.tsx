import { Link, useSearchParams } from 'react-router';
import { useAccount } from '../../api/account';
import { plural } from '../../ui/format';
import { usePageCommands } from '../../app/pageCommands';
import { useScope } from '../../app/scope';
import { Button } from '../../ui/Button';
import { Empty } from '../../ui/Panel';
import { useKinds } from '../../api/kinds';
import { FilterBar } from '../../sheet/views/FilterBar';
import { isFiltered, plainLook } from '../../sheet/views/look';
import { asked } from '../../sheet/open';
import { noSelection, requestOf } from '../../sheet/selection';
import { SelectionPanel } from '../../sheet/editing/SelectionPanel';
import { selectionCommands } from '../../sheet/editing/bulk';
import { Sheet } from '../../sheet/Sheet';
import type { SheetView } from '../../sheet/sheetQuery';
import { SheetDialogs } from '../../sheet/SheetDialogs';
import { TotalsBar } from '../../sheet/TotalsBar';
import { usePageKeys } from '../../sheet/usePageKeys';
import { useSheetPage } from '../../sheet/useSheetPage';
import { StructureHead } from './StructureHead';

export function StructurePage() {
  const account = useAccount();
  const { campaignId, adGroupId } = useScope();
  const [parameters, setParameters] = useSearchParams();
  const kinds = useKinds();
  const views: { value: SheetView; label: string }[] = [
    { value: 'outline', label: 'Outline' },
    ...kinds.inLists.map(({ kind }) => ({ value: kind, label: kinds.title(kind) })),
    ...kinds.staying.map((each) => ({ value: each.kind, label: `The ${each.noun}` })),
  ];
  const view: SheetView = views.find((each) => each.value === parameters.get('view'))?.value ?? 'outline';
  const stepId = Number(parameters.get('step')) || null;
  const page = useSheetPage(view, { campaignId, adGroupId, stepId });
  const { look, setLook, onLook, selection, setSelection, counted, query, setOpen } = page;

  /** Changes what the address says beside the look. */
  const set = (changes: Record<string, string | null>) =>
    setParameters((current) => {
      const next = new URLSearchParams(current);
      for (const [name, value] of Object.entries(changes)) {
        if (value === null) next.delete(name);
        else next.set(name, value);
      }
      return next;
    });
  const showAll = () => {
    setSelection(noSelection);
    setLook((now) => ({ ...plainLook, columns: now.columns, figureDays: now.figureDays, sort: now.sort }), {
      step: null,
    });
  };
  /** What a step touched, and nothing else: the way back to the filter of before is Back. */
  const showStep = (step: number) => {
    setLook((now) => ({ ...plainLook, columns: now.columns, figureDays: now.figureDays }), {
      step: String(step),
      campaign: null,
      adGroup: null,
    });
  };
  const open = parameters.has('takeOut')
    ? ({ what: 'takeOut' } as const)
    : (page.open ?? asked(parameters.get('add'), kinds));
  const close = () => {
    setOpen(null);
    if (parameters.has('takeOut') || parameters.has('add')) set({ takeOut: null, add: null });
  };
  const filtered = isFiltered(look) || stepId !== null;
  const counts = counted.counts;
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
  const onKeys = usePageKeys({
    selection,
    onBulk: page.panel.onBulk,
    others: {
      KeyO: () => setOpen({ what: 'takeOut' }),
      KeyN: () => document.querySelector<HTMLElement>('[data-adds]')?.click(),
    },
  });
  usePageCommands([
    ...selectionCommands(page.panel, kinds, page.onRemove),
    { name: 'Combine words into keywords', run: () => setOpen({ what: 'combine' }) },
    { name: 'Duplicate and competing keywords', run: () => setOpen({ what: 'duplicates' }) },
    { name: 'Take out into a file', keys: 'Alt O', run: () => setOpen({ what: 'takeOut' }) },
    ...(filtered ? [{ name: 'Show all, without the filter', run: showAll }] : []),
  ]);

  return (
    <div
      className="grid h-full min-h-0 grid-cols-1 max-[899px]:auto-rows-max max-[899px]:overflow-auto min-[900px]:grid-cols-[minmax(0,1fr)_290px]"
      onKeyDown={onKeys}
    >
      <section aria-label="Sheet" className="flex min-h-0 min-w-0 flex-col max-[899px]:h-[75vh]">
        <StructureHead
          note={note}
          view={view}
          views={views}
          page={page}
          onView={(next) => {
            setSelection(noSelection);
            // The order and the columns of one kind say nothing of another.
            setLook((now) => ({ ...now, sort: null }), { view: next === 'outline' ? null : next });
          }}
        />
        <FilterBar
          view={view}
          look={look}
          onLook={onLook}
          step={stepId === null ? null : 'Only what one step touched'}
          onAllSteps={() => {
            setSelection(noSelection);
            set({ step: null });
          }}
          onShowAll={showAll}
        />
        <Sheet {...page.sheet} focus={parameters.get('focus')} focusField={parameters.get('field')}>
          <Empty title={look.removed ? 'Nothing removed' : filtered ? 'Nothing matches' : 'Nothing here yet'}>
            {filtered ? (
              <Button onClick={showAll}>Show all</Button>
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
        <TotalsBar query={query} selection={selection} />
      </section>
      <aside
        data-side
        aria-label="Selection"
        className="flex min-h-0 flex-col gap-3 overflow-auto border-line-strong bg-paper p-3 max-[899px]:border-t min-[900px]:border-l"
      >
        <SelectionPanel {...page.panel} />
      </aside>
      <SheetDialogs
        open={open}
        selection={selection}
        shown={
          !look.removed && (filtered || view !== 'outline')
            ? { count: counted.total, where: requestOf(query) }
            : undefined
        }
        place={place}
        onClose={close}
        onOpen={setOpen}
        onDone={(result, command) => {
          close();
          page.onDone(result, command);
        }}
        onStep={(step, items) => {
          setOpen(null);
          if (step) void page.selectStep(step, items);
        }}
        onShow={showStep}
      />
    </div>
  );
}
