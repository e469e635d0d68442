import { useCallback, useMemo, useState } from 'react';
import type { Command, Schemas, SheetRow } from '../../api/client';
import { plural } from '../../ui/format';
import { useScope } from '../../app/scope';
import { Button } from '../../ui/Button';
import { Empty, PageHead } from '../../ui/Panel';
import { Segments } from '../../ui/Segments';
import { useColumns } from '../../sheet/views/columns';
import { FilterBar } from '../../sheet/views/FilterBar';
import { plainLook, queryOf, type Look } from '../../sheet/views/look';
import { noSelection, type Selection } from '../../sheet/selection';
import { SelectionPanel, type BulkEdit } from '../../sheet/editing/SelectionPanel';
import { Sheet } from '../../sheet/Sheet';
import { SheetDialogs } from '../../sheet/SheetDialogs';
import type { Open } from '../../sheet/open';
import { ListsPanel } from './ListsPanel';
import { PastePanel } from './PastePanel';
import { ConflictsTable, EffectsTable, NeedlessTable } from './ReviewTables';
import { useLists, useReview } from './useNegatives';

type Tab = 'sheet' | 'conflicts' | 'needless' | 'effects';

/** Words that must never trigger an ad: on campaigns, ad groups and shared lists, and what they do. */
export function NegativesPage() {
  const { campaignId, adGroupId } = useScope();
  const { columns } = useColumns('negativeKeyword', undefined);
  const lists = useLists();
  const [tab, setTab] = useState<Tab>('sheet');
  const [listId, setListId] = useState<number | null>(null);
  const [look, setLook] = useState<Look>(plainLook);
  const [selection, setSelection] = useState<Selection>(noSelection);
  const [open, setOpen] = useState<Open | null>(null);
  const [total, setTotal] = useState(0);
  const review = useReview(tab !== 'sheet');
  const query = useMemo(
    () =>
      queryOf(look, 'negativeKeyword', {
        campaignId: listId === null ? campaignId : null,
        adGroupId: listId === null ? adGroupId : null,
        listId,
        stepId: null,
        foldedCampaigns: [],
        foldedAdGroups: [],
      }),
    [look, campaignId, adGroupId, listId],
  );
  const onCounts = useCallback((count: number) => setTotal(count), []);
  const onSort = useCallback(
    (by: string) =>
      setLook((now) => ({
        ...now,
        sort:
          now.sort?.by === by
            ? now.sort.descending
              ? null
              : { by, descending: true }
            : { by, descending: false },
      })),
    [],
  );
  const preview = (command: Command) => setOpen({ what: 'preview', command });
  const onDone = (_: Schemas['CommandAnswer'], command: Command) => {
    setOpen(null);
    if (command.type === 'remove') setSelection(noSelection);
  };
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
  return (
    <div className="grid h-full grid-cols-1 min-[900px]:grid-cols-[220px_minmax(0,1fr)_290px]">
      <ListsPanel
        lists={lists.data?.rows ?? []}
        chosen={listId}
        onChoose={(id) => {
          setListId(id);
          setTab('sheet');
          setSelection(noSelection);
        }}
        onPreview={preview}
      />
      <section aria-label="Negatives" className="flex min-h-0 min-w-0 flex-col">
        <PageHead
          title={list && tab === 'sheet' ? list.name : 'Negatives'}
          note={tab === 'sheet' ? plural(total, 'negative') : undefined}
        >
          <Segments label="What is shown" value={tab} segments={segments} onChange={setTab} />
        </PageHead>
        {tab === 'sheet' ? (
          <>
            <FilterBar
              view="negativeKeyword"
              look={look}
              onLook={setLook}
              step={null}
              onAllSteps={() => undefined}
            />
            <Sheet
              query={query}
              columns={columns}
              onSort={onSort}
              onFold={() => undefined}
              selection={selection}
              onSelect={setSelection}
              onPreview={preview}
              onRemove={() =>
                preview({
                  type: 'remove',
                  items: [...selection.rows.values()].map(({ kind, id }: SheetRow) => ({ kind, id })),
                  where: selection.all?.where,
                })
              }
              onOpenItem={() => undefined}
              onCounts={onCounts}
              onConflict={(problem, command) => setOpen({ what: 'conflict', problem, command })}
              focus={null}
              focusField={null}
            >
              <Empty title="No negatives here">
                Paste words that must never trigger an ad on the right, and choose where they hold.
              </Empty>
            </Sheet>
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
        aria-label="Change"
        className="flex min-h-0 flex-col gap-3 overflow-auto border-l border-line-strong bg-paper p-3"
      >
        {selection.rows.size > 0 || selection.all ? (
          <>
            <SelectionPanel
              selection={selection}
              onPreview={preview}
              onOpenItem={() => undefined}
              onConflict={(problem, command) => setOpen({ what: 'conflict', problem, command })}
              onBulk={(edit: BulkEdit) => setOpen({ what: 'bulk', edit })}
            />
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
        onDone={onDone}
        onStep={() => setOpen(null)}
      />
    </div>
  );
}
