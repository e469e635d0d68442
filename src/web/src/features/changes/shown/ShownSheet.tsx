import { useState } from 'react';
import { useSearchParams } from 'react-router';
import type { Schemas } from '../../../api/client';
import { useKinds } from '../../../api/kinds';
import { usePageCommands } from '../../../app/pageCommands';
import { useGo } from '../../../app/scope';
import { selectionCommands } from '../../../sheet/editing/bulk';
import { SelectionPanel } from '../../../sheet/editing/SelectionPanel';
import { Sheet } from '../../../sheet/Sheet';
import { SheetDialogs } from '../../../sheet/SheetDialogs';
import type { SheetView } from '../../../sheet/sheetQuery';
import { sizeOf } from '../../../sheet/selection';
import { TotalsBar } from '../../../sheet/TotalsBar';
import { usePageKeys } from '../../../sheet/usePageKeys';
import { useSheetPage } from '../../../sheet/useSheetPage';
import { FilterBar } from '../../../sheet/views/FilterBar';
import { isFiltered, plainLook } from '../../../sheet/views/look';
import { Button } from '../../../ui/Button';
import { Choice } from '../../../ui/Choice';
import { moment, plural } from '../../../ui/format';
import { Menu } from '../../../ui/Menu';
import { Empty, PageHead } from '../../../ui/Panel';
import { Segments } from '../../../ui/Segments';
import { standing } from '../Looks';
import { useLookActs } from '../said/useLookActs';
import { ProposedList } from './ProposedList';
import { SaidHere } from './SaidHere';

/** What is looked at first of a campaign and what is in it. */
const usual: Partial<Record<SheetView, readonly string[]>> = {
  outline: [
    'name',
    'match',
    'maxCpc',
    'dailyBudget',
    'clicks',
    'cost',
    'conversions',
    'costPerConversion',
    'needs',
  ],
};

type Side = 'item' | 'said' | 'proposed';

interface Props {
  data: Schemas['LookAnswer'];
  campaignId: number;
  /** May take proposals over. */
  mayDecide: boolean;
}

/** The sheet of a campaign that is shown; beside it what is selected, what is said, and what is proposed. */
export function ShownSheet({ data, campaignId, mayDecide }: Props) {
  const { look, remarks, proposals } = data;
  const kinds = useKinds();
  const go = useGo();
  const doing = useLookActs(look.id);
  const [parameters, setParameters] = useSearchParams();
  const views: { value: SheetView; label: string }[] = [
    { value: 'outline', label: 'Outline' },
    ...kinds.inLists
      .filter(({ levels }) => levels.some((level) => level === 'campaign' || level === 'adGroup'))
      .map(({ kind }) => ({ value: kind, label: kinds.title(kind) })),
  ];
  const view: SheetView = views.find((each) => each.value === parameters.get('view'))?.value ?? 'outline';
  const page = useSheetPage(view, { campaignId, adGroupId: null }, usual);
  const { look: shown, setLook, onLook, selection, query, open, setOpen } = page;
  const left = proposals.filter((each) => each.state === 'open').length;
  const [side, setSide] = useState<Side>(mayDecide && left > 0 ? 'proposed' : 'item');
  const isOpen = look.state === 'open';
  const showAll = () =>
    setLook((now) => ({ ...plainLook, columns: now.columns, figureDays: now.figureDays }));
  const show = ({ kind, id }: { kind: string; id: number }) =>
    setParameters(
      (current) => {
        const next = new URLSearchParams(current);
        next.set('focus', `${kind}:${id}`);
        return next;
      },
      { replace: true },
    );
  const one = !selection.all && selection.rows.size === 1 ? [...selection.rows.values()][0] : undefined;
  const place = { campaignId, adGroupId: one?.adGroupId ?? null };
  const onKeys = usePageKeys({
    selection,
    onBulk: page.panel.onBulk,
    others: { KeyN: () => document.querySelector<HTMLElement>('[data-adds]')?.click() },
  });
  usePageCommands([
    ...selectionCommands(page.panel, kinds, page.onRemove),
    { name: 'What is selected', run: () => setSide('item') },
    { name: 'What is said', run: () => setSide('said') },
    { name: 'What is proposed', run: () => setSide('proposed') },
  ]);
  const filtered = isFiltered(shown);
  return (
    <div
      className="grid h-full min-h-0 grid-cols-1 max-[899px]:auto-rows-max max-[899px]:overflow-auto min-[900px]:grid-cols-[minmax(0,1fr)_320px]"
      onKeyDown={onKeys}
    >
      <section
        aria-label="Campaign as proposed"
        className="flex min-h-0 min-w-0 flex-col max-[899px]:h-[75vh]"
      >
        <PageHead
          title={look.campaign ?? 'A campaign that is gone'}
          note={`shown by ${look.isMine ? 'you' : look.askedBy}, ${moment(look.madeAt)} · ${standing(look)}`}
        >
          <Choice
            label="Show"
            value={view}
            options={views}
            onChange={(next) =>
              setLook((now) => ({ ...now, sort: null }), { view: next === 'outline' ? null : next })
            }
          />
          {isOpen && (
            <Menu
              trigger={
                <Button tone="plum" data-adds>
                  Propose…
                </Button>
              }
              entries={kinds.inLists
                .filter(({ kind }) => kind !== 'campaign' && views.some((each) => each.value === kind))
                .map(({ kind }) => ({
                  label: `New: ${kinds.title(kind).toLowerCase()}`,
                  onSelect: () => setOpen({ what: 'add', kind }),
                }))}
            />
          )}
          {look.isMine && (
            <Button
              disabled={doing.busy}
              onClick={() =>
                void (isOpen ? doing.end('It is shown no more.') : doing.again('It is shown again.'))
              }
            >
              {isOpen ? 'Show no more' : 'Show again'}
            </Button>
          )}
          <Button onClick={() => go('ship/changes', { look: null })}>All changes</Button>
        </PageHead>
        {look.note && (
          <p className="max-h-20 overflow-auto border-b border-line bg-sheet px-3 py-1.5 whitespace-pre-wrap">
            {look.note}
          </p>
        )}
        <FilterBar
          view={view}
          look={shown}
          onLook={onLook}
          step={null}
          onAllSteps={() => undefined}
          onShowAll={showAll}
        />
        <Sheet {...page.sheet} focus={parameters.get('focus') ?? `campaign:${campaignId}`} focusField={null}>
          <Empty title={filtered ? 'Nothing matches' : 'The campaign is gone'}>
            {filtered ? (
              <Button onClick={showAll}>Show all</Button>
            ) : (
              'It was removed since. What was said about it is kept beside.'
            )}
          </Empty>
        </Sheet>
        <TotalsBar query={query} selection={selection} />
      </section>
      <aside
        data-side
        aria-label="Beside the campaign"
        className="flex min-h-0 flex-col gap-3 overflow-auto border-line-strong bg-paper p-3 max-[899px]:border-t min-[900px]:border-l"
      >
        <Segments<Side>
          label="Beside the campaign"
          value={side}
          segments={[
            { value: 'item', label: sizeOf(selection) > 1 ? 'Items' : 'Item' },
            { value: 'said', label: `Said ${remarks.length}` },
            { value: 'proposed', label: `Proposed ${left}` },
          ]}
          onChange={setSide}
        />
        {side === 'item' && (
          <>
            {isOpen && (
              <p className="text-ink-2">
                What you change here is proposed. The working copy stays as it is until somebody takes it
                over.
              </p>
            )}
            <SelectionPanel {...page.panel} />
          </>
        )}
        {side === 'said' && (
          <SaidHere remarks={remarks} about={one} isOpen={isOpen} doing={doing} onShow={show} />
        )}
        {side === 'proposed' && (
          <ProposedList
            lookId={look.id}
            proposals={proposals}
            asOf={data.proposedAsOf}
            mayDecide={mayDecide}
            isOpen={isOpen}
            onShow={show}
          />
        )}
      </aside>
      <SheetDialogs
        open={open}
        selection={selection}
        place={place}
        onClose={() => setOpen(null)}
        onOpen={setOpen}
        onDone={page.onDone}
        onStep={() => setOpen(null)}
        onShow={() => undefined}
      />
      <span className="sr-only" role="status">
        {plural(left, 'proposal')} open
      </span>
    </div>
  );
}
