import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { plural } from '../../ui/format';
import { usePageCommands } from '../../app/pageCommands';
import { useScope } from '../../app/scope';
import { useKinds } from '../../api/kinds';
import { Button } from '../../ui/Button';
import { Empty, PageHead } from '../../ui/Panel';
import { Segments } from '../../ui/Segments';
import { FilterBar } from '../../sheet/views/FilterBar';
import { plainLook } from '../../sheet/views/look';
import { noSelection, sizeOf } from '../../sheet/selection';
import { selectionCommands } from '../../sheet/editing/bulk';
import { SelectionPanel } from '../../sheet/editing/SelectionPanel';
import { Sheet } from '../../sheet/Sheet';
import { SheetDialogs } from '../../sheet/SheetDialogs';
import { TotalsBar } from '../../sheet/TotalsBar';
import { usePageKeys } from '../../sheet/usePageKeys';
import { useSheetPage } from '../../sheet/useSheetPage';
import { ListsPanel } from './ListsPanel';
import { PastePanel } from './PastePanel';
import { ConflictsTable, EffectsTable, NeedlessTable } from './ReviewTables';
import { useNegativeLists } from '../../sheet/useNegativeLists';
import { useReview } from './useNegatives';

type Tab = 'sheet' | 'conflicts' | 'needless' | 'effects';

/** Words that must never trigger an ad: on campaigns, ad groups and shared lists, and what they do. */
export function NegativesPage() {
  const { campaignId, adGroupId } = useScope();
  const kinds = useKinds();
  const lists = useNegativeLists();
  const [parameters, setParameters] = useSearchParams();
  const listId = Number(parameters.get('list')) || null;
  const [tab, setTab] = useState<Tab>('sheet');
  const page = useSheetPage('negativeKeyword', { campaignId, adGroupId, listId });
  const { look, setLook, onLook, query, selection, setSelection, counted, preview, open, setOpen } = page;
  const review = useReview(tab !== 'sheet');
  const list = lists.data?.rows.find((row) => row.id === listId);
  const data = review.data;
  const segments: { value: Tab; label: string }[] = [
    { value: 'sheet', label: 'Negatives' },
    {
      value: 'conflicts',
      label: data ? `Blocking own keywords (${data.conflictCount})` : 'Blocking own keywords',
    },
    { value: 'needless', label: data ? `Needless (${data.needlessCount})` : 'Needless' },
    { value: 'effects', label: 'Searches they hold back' },
  ];
  const onKeys = usePageKeys({ selection, onBulk: page.panel.onBulk });
  usePageCommands([
    ...(tab === 'sheet' ? selectionCommands(page.panel, kinds, page.onRemove) : []),
    ...segments.map(({ value, label }) => ({ name: `Show: ${label}`, run: () => setTab(value) })),
  ]);
  const chooseList = (id: number | null) => {
    setTab('sheet');
    setSelection(noSelection);
    setParameters((now) => {
      const next = new URLSearchParams(now);
      if (id === null) next.delete('list');
      else next.set('list', String(id));
      return next;
    });
  };
  return (
    <div
      className="grid h-full min-h-0 grid-cols-1 max-[899px]:auto-rows-max max-[899px]:overflow-auto min-[900px]:grid-cols-[200px_minmax(0,1fr)_290px]"
      onKeyDown={onKeys}
    >
      <ListsPanel lists={lists.data?.rows ?? []} chosen={listId} onChoose={chooseList} onPreview={preview} />
      <section aria-label="Negatives" className="flex min-h-0 min-w-0 flex-col max-[899px]:h-[75vh]">
        <PageHead
          title={list && tab === 'sheet' ? list.name : 'Negatives'}
          note={tab === 'sheet' ? plural(counted.total, 'negative') : undefined}
        >
          <Segments label="What is shown" value={tab} segments={segments} onChange={setTab} />
        </PageHead>
        {tab === 'sheet' ? (
          <>
            <FilterBar
              view="negativeKeyword"
              look={look}
              onLook={onLook}
              step={null}
              onAllSteps={() => undefined}
              onShowAll={() => setLook((now) => ({ ...plainLook, columns: now.columns, sort: now.sort }))}
            />
            <Sheet {...page.sheet} focus={parameters.get('focus')} focusField={parameters.get('field')}>
              <Empty title="No negatives here">
                Paste words that must never trigger an ad on the right, and choose where they hold.
              </Empty>
            </Sheet>
            <TotalsBar query={query} selection={selection} />
          </>
        ) : (
          <div className="min-h-0 flex-1 overflow-auto bg-sheet p-3">
            {review.isError && <p className="text-brick">{review.error.message}</p>}
            {!data && !review.isError && (
              <p className="text-ink-3">Holding negatives against keywords and searches…</p>
            )}
            {data && tab === 'conflicts' && <ConflictsTable report={data} onPreview={preview} />}
            {data && tab === 'needless' && <NeedlessTable report={data} onPreview={preview} />}
            {data && tab === 'effects' && <EffectsTable report={data} onPreview={preview} />}
          </div>
        )}
      </section>
      <aside
        data-side
        aria-label="Change"
        className="flex min-h-0 flex-col gap-3 overflow-auto border-line-strong bg-paper p-3 max-[899px]:border-t min-[900px]:border-l"
      >
        {sizeOf(selection) > 0 && tab === 'sheet' ? (
          <>
            <SelectionPanel {...page.panel} />
            <Button tone="quiet" onClick={() => setSelection(noSelection)}>
              Paste more negatives
            </Button>
          </>
        ) : (
          <PastePanel key={listId ?? 0} listId={listId} lists={lists.data?.rows ?? []} onPreview={preview} />
        )}
      </aside>
      <SheetDialogs
        open={open}
        selection={selection}
        place={{ campaignId, adGroupId }}
        onClose={() => setOpen(null)}
        onOpen={setOpen}
        onDone={page.onDone}
        onStep={() => setOpen(null)}
        onShow={() => undefined}
      />
    </div>
  );
}
