import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { answer, api, type Schemas } from '../../api/client';
import { useStatus } from '../../api/hooks';
import { useAccount } from '../../api/account';
import { useMeasures } from '../../api/measures';
import { shortDay } from '../../ui/format';
import { useGo, useScope } from '../../app/scope';
import { Button } from '../../ui/Button';
import { Empty } from '../../ui/Panel';
import { Segments } from '../../ui/Segments';
import { BreakdownTable } from './BreakdownTable';
import { DaysSide } from './DaysSide';
import { MovedPanel } from './MovedPanel';
import { PictureOf } from './pictures/PictureOf';
import { ResultsTable } from './ResultsTable';
import { ResultsViews } from './ResultsViews';
import { ReachedTable, type ReachedBy } from './ReachedTable';
import { Totals } from './Totals';
import { useBreakdownChoices } from './useBreakdown';
import { useConditions } from './useConditions';
import { useResultsAddress } from './useResultsAddress';
import { RivalsTable } from './RivalsTable';
import { ConditionChoice, RowsBar } from './RowsBar';

type Level = Exclude<Schemas['ItemKind'], 'negativeKeyword'>;

const levels: { value: Level; label: string }[] = [
  { value: 'campaign', label: 'Campaigns' },
  { value: 'adGroup', label: 'Ad groups' },
  { value: 'keyword', label: 'Keywords' },
  { value: 'textAd', label: 'Ads' },
  { value: 'responsiveAd', label: 'Responsive ads' },
  { value: 'callAd', label: 'Call ads' },
];

/** What is told apart by something else than items. */
const others = [
  { value: 'placement', label: 'Placements' },
  { value: 'audience', label: 'Audiences' },
  { value: 'rivals', label: 'Rivals' },
] as const satisfies readonly { value: ReachedBy | 'rivals'; label: string }[];

/** What somebody who goes into a row leaves behind: which rows there were, and to which they were kept. */
const asUsual = { level: null, then: null, view: null, condition: null };

/** Which columns there are. */
const groups: { value: 'brought' | 'stood'; label: string }[] = [
  { value: 'brought', label: 'What it brought' },
  { value: 'stood', label: 'Where it stood' },
];

/** What the days cost and brought, beside the days before them. */
export function ResultsPage() {
  const account = useAccount();
  const status = useStatus();
  const newest = status.data?.reportedTo ?? null;
  const { campaignId, adGroupId, setScope } = useScope();
  const address = useResultsAddress(newest);
  const { set, natural, compared, grain, group, view } = address;
  const measures = useMeasures();
  const other = others.find((each) => each.value === address.rows)?.value ?? null;
  const level = levels.find((each) => each.value === address.rows)?.value ?? natural;
  const choices = useBreakdownChoices().data ?? [];
  // Rows are items, or parts that figures are told apart by; both can be told apart once more.
  const apart = choices.find(
    (each) => each.by === address.rows && !levels.some((item) => item.value === address.rows),
  );
  const by = other ? undefined : (apart ?? choices.find((each) => each.by === level));
  const crossed = by?.crosses.find((each) => each === address.then);
  const thenName = choices.find((each) => each.by === crossed)?.name ?? null;
  const isOfCampaigns = level === 'campaign' && !other;
  const known = useConditions(isOfCampaigns);
  const conditions = known.data;
  const condition = isOfCampaigns
    ? conditions?.counts.find((each) => each.condition === address.condition)?.condition
    : undefined;
  // Columns that somebody chose, or those that are usual of what ads brought or of where they stood.
  const shown = (
    address.columns ??
    [...measures.of(group).filter((each) => each.isUsual), ...measures.of('own')].map((each) => each.key)
  ).filter((key) => measures.find(key));
  const figure =
    address.figure && measures.find(address.figure)
      ? address.figure
      : group === 'stood'
        ? 'impressionShare'
        : 'costPerConversion';
  const setFigure = (next: string) => set({ figure: next });
  const go = useGo();
  const scope = { campaignId: campaignId ?? undefined, adGroupId: adGroupId ?? undefined };
  const asked =
    // What is kept to campaigns that do one thing waits until it is known what they do.
    compared && !(isOfCampaigns && address.condition && known.isPending)
      ? { ...compared, ...scope, level, grain, condition, view: view ?? undefined }
      : null;
  const results = useQuery({
    queryKey: [account.id, 'results', asked],
    enabled: asked !== null,
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/accounts/{accountId}/results', {
          params: { path: { accountId: account.id }, query: asked ?? { first: '', last: '', level } },
          signal,
        }),
      ),
  });
  const drill = (row: Schemas['ResultsRow']) => {
    setScope(
      { campaignId: row.campaignId, adGroupId: level === 'campaign' ? null : (row.adGroupId ?? null) },
      asUsual,
    );
  };
  const data = results.data;
  if (status.data && !newest)
    return (
      <>
        <h1 className="sr-only">Results</h1>
        <Empty title="No results yet">
          When ads have been published and a day has passed on the network, its report stands here. Let time
          pass with the clock at the top.
        </Empty>
      </>
    );
  const apartAsked = compared && { ...compared, ...scope };
  // Parts are known of whole campaigns: of chosen campaigns they are theirs, of other chosen items they are not known.
  const partsAsked = apartAsked && {
    ...apartAsked,
    condition,
    view: level === 'campaign' ? (view ?? undefined) : undefined,
  };
  const told = partsAsked && by && (apart || crossed) ? { ...partsAsked, by: by.by, then: crossed } : null;
  const file = (door: string, query: object) =>
    `/api/accounts/${account.id}/results${door}.csv?${addressOf(query)}`;
  const columns = address.columns ? { columns: address.columns.join(',') } : {};
  return (
    <div className="grid h-full grid-cols-1 min-[900px]:grid-cols-[306px_minmax(0,1fr)]">
      <aside
        aria-label="Totals"
        className="flex min-h-0 flex-col gap-3 overflow-auto border-r border-line-strong bg-sheet p-3"
      >
        <h1 className="text-[17px]">Results</h1>
        <DaysSide address={address} newest={newest} />
        {view && (
          <p className="flex items-center justify-between gap-1 rounded-sm bg-plum-wash py-0.5 pl-2">
            Only what “{view}” shows
            <Button
              tone="quiet"
              aria-label={`All items, not only those of ${view}`}
              onClick={() => set({ view: null })}
            >
              ✕
            </Button>
          </p>
        )}
        {isOfCampaigns && conditions && !conditions.todayIsKnown && (
          <p className="text-[12.5px] text-ochre">
            <span aria-hidden>◆ </span>The network does not answer: whether a budget ran out today is not
            known.
          </p>
        )}
        {results.isError && (
          <p role="alert" className="text-brick">
            {results.error.message}
          </p>
        )}
        {data && <Totals of="brought" chosen={shown} data={data} figure={figure} onFigure={setFigure} />}
        {data && <Totals of="own" chosen={shown} data={data} figure={figure} onFigure={setFigure} />}
        {data && apartAsked && !view && <MovedPanel asked={{ ...apartAsked, condition }} figure={figure} />}
        {data && <Totals of="stood" chosen={shown} data={data} figure={figure} onFigure={setFigure} />}
        {data && <DaysNote data={data} />}
      </aside>
      <section
        aria-label="Results in detail"
        className="relative flex min-h-0 min-w-0 flex-col gap-2.5 overflow-auto px-4 py-3"
      >
        {data && asked && partsAsked && (
          <>
            <PictureOf
              address={address}
              data={data}
              asked={partsAsked}
              level={level}
              figure={figure}
              isKept={view !== null && level !== 'campaign'}
              csv={file}
              onDrill={drill}
            />
            <div className="flex flex-wrap items-center gap-2">
              <RowsBar
                value={other ?? apart?.by ?? level}
                levels={[...levels, ...others]}
                choices={choices}
                by={by}
                crossed={crossed}
                onRows={(next) => set({ level: next === natural ? null : next, then: null, view: null })}
                onCrossed={(next) => set({ then: next })}
              />
              {isOfCampaigns && conditions && (conditions.counts.length > 1 || condition) && (
                <ConditionChoice
                  value={condition}
                  counts={conditions.counts}
                  onChange={(next) => set({ condition: next })}
                />
              )}
              {!other && !address.columns && (
                <Segments
                  label="Figures"
                  value={group}
                  segments={groups}
                  onChange={(next) => set({ figures: next === 'brought' ? null : next, figure: null })}
                />
              )}
              {!other && (
                <span className="ml-auto flex items-center gap-2">
                  <ResultsViews
                    address={address}
                    level={level}
                    shown={shown}
                    figure={figure}
                    campaignId={campaignId}
                  />
                  <a
                    className="rounded-sm border border-line-strong bg-sheet px-2.5 py-1 font-semibold hover:bg-paper"
                    href={
                      told ? file('/breakdown', { ...told, ...columns }) : file('', { ...asked, ...columns })
                    }
                    download
                  >
                    Export CSV
                  </a>
                </span>
              )}
            </div>
            {told ? (
              <BreakdownTable
                asked={told}
                thenName={thenName}
                figure={figure}
                shown={shown}
                onDrill={
                  told.by === 'campaign'
                    ? (key) => {
                        setScope({ campaignId: Number(key), adGroupId: null }, asUsual);
                      }
                    : null
                }
              />
            ) : other && other !== 'rivals' ? (
              <ReachedTable by={other} asked={compared} campaignId={campaignId} adGroupId={adGroupId} />
            ) : other ? (
              <RivalsTable asked={compared} campaignId={campaignId} adGroupId={adGroupId} />
            ) : (
              <ResultsTable
                data={data}
                level={level}
                figure={figure}
                shown={shown}
                hasQuality={level === 'keyword' && !address.columns && group === 'stood'}
                conditions={conditions?.campaigns ?? []}
                onDrill={drill}
                onSearches={(row) => go('ship/trace', { past: 'list', day: data.last, keyword: row.id })}
              />
            )}
          </>
        )}
      </section>
    </div>
  );
}

/** Which days are compared, and how far that goes. */
function DaysNote({ data }: { data: Schemas['ResultsAnswer'] }) {
  const { daysNow: now, daysBefore: before } = data;
  return (
    <p className="text-[12.5px] text-ink-3">
      {shortDay(data.first)} – {shortDay(data.last)} against {shortDay(data.beforeFirst)} –{' '}
      {shortDay(data.beforeLast)}.{' '}
      {now !== before &&
        `That is ${now} days against ${before}: sums differ by that alone, what is per click or per conversion does not. `}
      Weeks before and after differ by season too: a comparison in time is no proof.
    </p>
  );
}

const addressOf = (asked: object) =>
  new URLSearchParams(
    Object.entries(asked).flatMap(([name, value]) => (value === undefined ? [] : [[name, String(value)]])),
  ).toString();
