import { useCallback, useDeferredValue, useMemo, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import type { Command, ItemState, MatchType, Schemas, SheetRow } from '../../api/client';
import { useAccount } from '../../app/account';
import { matchNames, plural } from '../../app/format';
import { useScope } from '../../app/scope';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Menu } from '../../ui/Menu';
import { Empty, PageHead } from '../../ui/Panel';
import { AdDialog } from './AdDialog';
import { AddDialog, type Addition } from './AddDialog';
import { PreviewDialog } from './PreviewDialog';
import { SelectionPanel } from './SelectionPanel';
import { Sheet, type Selection } from './Sheet';
import { keyOf, referencesOf, type SheetQuery, type SheetView } from './sheetQuery';

const views: { value: SheetView; label: string }[] = [
  { value: 'outline', label: 'Outline' },
  { value: 'campaigns', label: 'Campaigns' },
  { value: 'adGroups', label: 'Ad groups' },
  { value: 'keywords', label: 'Keywords' },
  { value: 'negatives', label: 'Negatives' },
  { value: 'ads', label: 'Ads' },
];

type MatchChoice = MatchType | 'any';
type StateChoice = ItemState | 'any';

const matchChoices: { value: MatchChoice; label: string }[] = [
  { value: 'any', label: 'any match' },
  ...Object.entries(matchNames).map(([value, label]) => ({ value: value as MatchType, label })),
];
const stateChoices: { value: StateChoice; label: string }[] = [
  { value: 'any', label: 'any state' },
  { value: 'running', label: 'running' },
  { value: 'paused', label: 'paused' },
];

const empty: Selection = new Map();

/** What a link from a check asks to be added. */
function asked(add: string | null): Addition | null {
  return add === 'ad' || add === 'keywords' ? add : null;
}

export function StructurePage() {
  const account = useAccount();
  const { campaignId, adGroupId } = useScope();
  const [parameters, setParameters] = useSearchParams();
  const view = (views.find((each) => each.value === parameters.get('view'))?.value ??
    'outline') satisfies SheetView;
  const stepId = Number(parameters.get('step')) || null;
  const [words, setWords] = useState('');
  const text = useDeferredValue(words);
  const [state, setState] = useState<StateChoice>('any');
  const [match, setMatch] = useState<MatchChoice>('any');
  const [changed, setChanged] = useState(false);
  const [needs, setNeeds] = useState(false);
  const [sort, setSort] = useState<{ by: string; descending: boolean } | null>(null);
  const [foldedCampaigns, setFoldedCampaigns] = useState<number[]>([]);
  const [foldedAdGroups, setFoldedAdGroups] = useState<number[]>([]);
  const [selection, setSelection] = useState<Selection>(empty);
  const [preview, setPreview] = useState<Command | null>(null);
  const [adding, setAdding] = useState<Addition | null>(() => asked(parameters.get('add')));
  const [openAd, setOpenAd] = useState<SheetRow | null>(null);
  const [shown, setShown] = useState<{ total: number; counts?: Schemas['SheetCounts'] }>({ total: 0 });

  const query = useMemo<SheetQuery>(
    () => ({
      view,
      campaignId,
      adGroupId,
      text,
      state: state === 'any' ? null : state,
      match: match === 'any' ? null : match,
      changed,
      needs,
      stepId,
      sort: sort?.by ?? null,
      descending: sort?.descending ?? false,
      foldedCampaigns,
      foldedAdGroups,
      kinds: [],
    }),
    [
      view,
      campaignId,
      adGroupId,
      text,
      state,
      match,
      changed,
      needs,
      stepId,
      sort,
      foldedCampaigns,
      foldedAdGroups,
    ],
  );

  const set = (name: string, value: string | null) =>
    setParameters((current) => {
      const next = new URLSearchParams(current);
      if (value === null) next.delete(name);
      else next.set(name, value);
      return next;
    });
  const onSort = useCallback(
    (by: string) =>
      setSort((current) =>
        current?.by === by
          ? current.descending
            ? null
            : { by, descending: true }
          : { by, descending: false },
      ),
    [],
  );
  const onFold = useCallback((row: SheetRow) => {
    const toggled = (ids: number[]) =>
      ids.includes(row.id) ? ids.filter((id) => id !== row.id) : [...ids, row.id];
    if (row.kind === 'campaign') setFoldedCampaigns(toggled);
    else setFoldedAdGroups(toggled);
  }, []);
  const onCounts = useCallback(
    (total: number, counts: Schemas['SheetCounts'] | undefined) => setShown({ total, counts }),
    [],
  );
  const filtered = !!text || state !== 'any' || match !== 'any' || changed || needs || stepId !== null;
  const counts = shown.counts;
  const note =
    counts &&
    (view === 'outline'
      ? `${plural(counts.campaigns, 'campaign')} · ${plural(counts.adGroups, 'ad group')} · ${plural(counts.keywords, 'keyword')} · ${plural(counts.negatives, 'negative')} · ${plural(counts.ads, 'ad')}`
      : plural(shown.total, 'row'));
  const first = [...selection.values()][0];
  const place = {
    campaignId: first?.campaignId ?? null,
    adGroupId: first?.adGroupId ?? null,
  };
  const clearFilter = () => {
    setWords('');
    setState('any');
    setMatch('any');
    setChanged(false);
    setNeeds(false);
    set('step', null);
  };

  return (
    <div className="grid h-full grid-cols-1 min-[900px]:grid-cols-[minmax(0,1fr)_290px]">
      <section aria-label="Sheet" className="flex min-h-0 min-w-0 flex-col">
        <PageHead title="Structure" note={note}>
          <Choice
            label="Show"
            value={view}
            options={views}
            onChange={(next) => set('view', next === 'outline' ? null : next)}
          />
          <Menu
            trigger={<Button tone="plum">Add…</Button>}
            entries={[
              { label: 'Keywords', onSelect: () => setAdding('keywords') },
              { label: 'Negatives', onSelect: () => setAdding('negatives') },
              { label: 'An ad', onSelect: () => setAdding('ad') },
              { label: 'An ad group', onSelect: () => setAdding('adGroup') },
              { label: 'A campaign', onSelect: () => setAdding('campaign') },
            ]}
          />
        </PageHead>
        <div
          role="search"
          className="flex flex-wrap items-center gap-2 border-b border-line bg-paper px-3 py-1.5"
        >
          <input
            type="search"
            aria-label="Filter by text"
            placeholder="Contains…"
            value={words}
            onChange={(event) => setWords(event.target.value)}
            className="w-44 rounded-sm border border-line-strong bg-white px-2 py-1"
          />
          <Choice label="Match type" value={match} options={matchChoices} onChange={setMatch} />
          <Choice label="State" value={state} options={stateChoices} onChange={setState} />
          <Button pressed={changed} onClick={() => setChanged(!changed)}>
            Changed
          </Button>
          <Button pressed={needs} onClick={() => setNeeds(!needs)}>
            Needs something
          </Button>
          {stepId !== null && (
            <Button pressed onClick={() => set('step', null)}>
              Only what came in ×
            </Button>
          )}
          {filtered && (
            <Button tone="quiet" onClick={clearFilter}>
              Show all
            </Button>
          )}
        </div>
        <Sheet
          query={query}
          onSort={onSort}
          onFold={onFold}
          selection={selection}
          onSelect={setSelection}
          onRemove={() => setPreview({ type: 'remove', items: referencesOf(selection.values()) })}
          onOpenAd={setOpenAd}
          onCounts={onCounts}
          focus={parameters.get('focus')}
          focusField={parameters.get('field')}
        >
          <Empty title={filtered ? 'Nothing matches' : 'Nothing here yet'}>
            {filtered ? (
              <Button onClick={clearFilter}>Show all</Button>
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
      </section>
      <aside
        aria-label="Selection"
        className="flex min-h-0 flex-col gap-3 overflow-auto border-l border-line-strong bg-paper p-3"
      >
        <SelectionPanel selection={selection} onPreview={setPreview} onOpenAd={setOpenAd} />
      </aside>
      {preview && (
        <PreviewDialog
          command={preview}
          onClose={() => setPreview(null)}
          onDone={() => {
            if (preview.type === 'remove') setSelection(empty);
            setPreview(null);
          }}
        />
      )}
      {adding && adding !== 'ad' && <AddDialog what={adding} place={place} onClose={() => setAdding(null)} />}
      {(adding === 'ad' || openAd) && (
        <AdDialog
          key={openAd ? keyOf(openAd) : 'new'}
          ad={openAd}
          place={place}
          onClose={() => {
            setAdding(null);
            setOpenAd(null);
          }}
        />
      )}
    </div>
  );
}
