import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { answer, api, type Schemas } from '../../api/client';
import { useStatus } from '../../api/hooks';
import { useAccount } from '../../api/account';
import { shortDay } from '../../ui/format';
import { useGo, useScope } from '../../app/scope';
import { Choice } from '../../ui/Choice';
import { TextField } from '../../ui/Field';
import { Empty } from '../../ui/Panel';
import { Segments } from '../../ui/Segments';
import { BreakdownTable } from './BreakdownTable';
import { chartNote, DayChart, type Grain } from './DayChart';
import { figureOf, groups, type FigureGroup, type FigureKey } from './figures';
import { comparisons, daysOf, presets, type Preset } from './period';
import { MovedPanel } from './MovedPanel';
import { ResultsTable } from './ResultsTable';
import { ReachedTable, type ReachedBy } from './ReachedTable';
import { Totals } from './Totals';
import { useBreakdownChoices } from './useBreakdown';
import { useConditions } from './useConditions';
import { RivalsTable } from './RivalsTable';
import { ConditionChoice, RowsBar } from './RowsBar';

type Level = Exclude<Schemas['ItemKind'], 'negativeKeyword'>;

/** How fine the chart is. */
const grains = [
  { value: 'day', label: 'Days' },
  { value: 'week', label: 'Weeks' },
  { value: 'month', label: 'Months' },
] as const satisfies readonly { value: Grain; label: string }[];

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

/** What the days cost and brought, beside the days before them. */
export function ResultsPage() {
  const account = useAccount();
  const status = useStatus();
  const newest = status.data?.reportedTo ?? null;
  const { campaignId, adGroupId, setScope } = useScope();
  const [parameters, setParameters] = useSearchParams();
  const [chosen, setFigure] = useState<FigureKey | null>(null);
  const preset = (presets.find((each) => each.value === parameters.get('period'))?.value ??
    'last28') satisfies Preset;
  const days =
    preset === 'own'
      ? { first: parameters.get('first') ?? newest ?? '', last: parameters.get('last') ?? newest ?? '' }
      : newest && daysOf(preset, newest);
  // The level follows the scope: inside a campaign its ad groups, inside an ad group its keywords, unless one is chosen.
  const natural: Level = adGroupId !== null ? 'keyword' : campaignId !== null ? 'adGroup' : 'campaign';
  const other = others.find((each) => each.value === parameters.get('level'))?.value ?? null;
  const level = levels.find((each) => each.value === parameters.get('level'))?.value ?? natural;
  const against =
    comparisons.find((each) => each.value === parameters.get('against'))?.value ?? ('daysBefore' as const);
  const grain = grains.find((each) => each.value === parameters.get('grain'))?.value ?? 'day';
  const choices = useBreakdownChoices().data ?? [];
  // Rows are items, or parts that figures are told apart by; both can be told apart once more.
  const rows = parameters.get('level');
  const apart = choices.find((each) => each.by === rows && !levels.some((item) => item.value === rows));
  const by = other ? undefined : (apart ?? choices.find((each) => each.by === level));
  const crossed = by?.crosses.find((each) => each === parameters.get('then'));
  const thenName = choices.find((each) => each.by === crossed)?.name ?? null;
  const isOfCampaigns = level === 'campaign' && !other && !apart && !crossed;
  const known = useConditions(isOfCampaigns);
  const conditions = known.data;
  const condition = isOfCampaigns
    ? conditions?.counts.find((each) => each.condition === parameters.get('condition'))?.condition
    : undefined;
  const group: FigureGroup = parameters.get('figures') === 'stood' ? 'stood' : 'brought';
  const figure = chosen ?? (group === 'stood' ? 'impressionShare' : 'costPerConversion');
  const go = useGo();
  const asked =
    // What is kept to campaigns that do one thing waits until it is known what they do.
    days && days.first && days.last && !(isOfCampaigns && parameters.has('condition') && known.isPending)
      ? {
          ...days,
          level,
          against,
          grain,
          condition,
          campaignId: campaignId ?? undefined,
          adGroupId: adGroupId ?? undefined,
        }
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
  const set = (values: Record<string, string | null>) =>
    setParameters((current) => {
      const next = new URLSearchParams(current);
      for (const [name, value] of Object.entries(values)) {
        if (value === null) next.delete(name);
        else next.set(name, value);
      }
      return next;
    });
  const choose = (next: Preset) =>
    set(
      next === 'own'
        ? { period: next, first: days ? days.first : null, last: days ? days.last : null }
        : { period: next, first: null, last: null },
    );
  const drill = (row: Schemas['ResultsRow']) => {
    set({ level: null, then: null });
    setScope({
      campaignId: row.campaignId,
      adGroupId: level === 'campaign' ? null : (row.adGroupId ?? null),
    });
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
  const query = asked && addressOf(asked);
  const told =
    asked && by && (apart || crossed)
      ? {
          by: by.by,
          then: crossed,
          first: asked.first,
          last: asked.last,
          against,
          campaignId: asked.campaignId,
          adGroupId: asked.adGroupId,
        }
      : null;
  return (
    <div className="grid h-full grid-cols-1 min-[900px]:grid-cols-[306px_minmax(0,1fr)]">
      <aside
        aria-label="Totals"
        className="flex min-h-0 flex-col gap-3 overflow-auto border-r border-line-strong bg-sheet p-3"
      >
        <h1 className="text-[17px]">Results</h1>
        <div className="flex flex-wrap items-center gap-1.5">
          <Choice label="Period" value={preset} options={presets} onChange={choose} />
          <span className="text-ink-3">against</span>
          <Choice
            label="Compare with"
            value={against}
            options={comparisons}
            onChange={(next) => set({ against: next === 'daysBefore' ? null : next })}
          />
        </div>
        {preset === 'own' && days && (
          <div className="grid grid-cols-2 gap-2">
            <TextField
              label="First day"
              type="date"
              value={days.first}
              max={newest ?? undefined}
              onChange={(event) => event.target.value && set({ first: event.target.value })}
            />
            <TextField
              label="Last day"
              type="date"
              value={days.last}
              max={newest ?? undefined}
              onChange={(event) => event.target.value && set({ last: event.target.value })}
            />
          </div>
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
        {data && <Totals of="brought" data={data} figure={figure} onFigure={setFigure} />}
        {data && asked && !condition && <MovedPanel asked={asked} figure={figure} />}
        {data && <Totals of="stood" data={data} figure={figure} onFigure={setFigure} />}
        {data && (
          <p className="text-[12.5px] text-ink-3">
            {shortDay(data.first)} – {shortDay(data.last)} against {shortDay(data.beforeFirst)} –{' '}
            {shortDay(data.beforeLast)}. Weeks before and after differ by season too: a comparison in time is
            no proof.
          </p>
        )}
      </aside>
      <section
        aria-label="Results in detail"
        className="relative flex min-h-0 min-w-0 flex-col gap-2.5 overflow-auto px-4 py-3"
      >
        {data && (
          <>
            <div className="flex items-center gap-2">
              <h2 className="text-[15px]">
                {figureOf(figure).title}, by {grain}
              </h2>
              <Segments
                label="How fine"
                value={grain}
                segments={grains}
                onChange={(next) => set({ grain: next === 'day' ? null : next })}
              />
              <span className="ml-auto text-ink-3">{chartNote(data)}</span>
            </div>
            <DayChart days={data.days} figure={figure} grain={grain} />
            <div className="flex flex-wrap items-center gap-2">
              <RowsBar
                value={other ?? apart?.by ?? level}
                levels={[...levels, ...others]}
                choices={choices}
                by={by}
                crossed={crossed}
                onRows={(next) => set({ level: next === natural ? null : next, then: null })}
                onCrossed={(next) => set({ then: next })}
              />
              {isOfCampaigns && conditions && (conditions.counts.length > 1 || condition) && (
                <ConditionChoice
                  value={condition}
                  counts={conditions.counts}
                  onChange={(next) => set({ condition: next })}
                />
              )}
              {!other && !told && (
                <Choice
                  label="Figures"
                  value={group}
                  options={groups}
                  onChange={(next) => {
                    set({ figures: next === 'brought' ? null : next });
                    setFigure(null);
                  }}
                />
              )}
              {!other && (
                <a
                  className="ml-auto rounded-sm border border-line-strong bg-sheet px-2.5 py-1 font-semibold hover:bg-paper"
                  href={
                    told
                      ? `/api/accounts/${account.id}/results/breakdown.csv?${addressOf(told)}`
                      : `/api/accounts/${account.id}/results.csv?${query ?? ''}`
                  }
                  download
                >
                  Export CSV
                </a>
              )}
            </div>
            {told ? (
              <BreakdownTable
                asked={told}
                thenName={thenName}
                figure={brought(figure) ? figure : 'costPerConversion'}
                onDrill={
                  told.by === 'campaign'
                    ? (key) => {
                        set({ level: null, then: null });
                        setScope({ campaignId: Number(key), adGroupId: null });
                      }
                    : null
                }
              />
            ) : other && other !== 'rivals' && asked ? (
              <ReachedTable
                by={other}
                days={{ first: asked.first, last: asked.last }}
                against={against}
                campaignId={campaignId}
                adGroupId={adGroupId}
              />
            ) : other && asked ? (
              <RivalsTable
                days={{ first: asked.first, last: asked.last }}
                against={against}
                campaignId={campaignId}
                adGroupId={adGroupId}
              />
            ) : (
              <ResultsTable
                data={data}
                level={level}
                figure={figure}
                group={group}
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

const brought = (figure: FigureKey) => figureOf(figure).group === 'brought';

const addressOf = (asked: object) =>
  new URLSearchParams(
    Object.entries(asked).flatMap(([name, value]) => (value === undefined ? [] : [[name, String(value)]])),
  ).toString();
