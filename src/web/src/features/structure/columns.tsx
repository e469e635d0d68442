import type { ReactNode } from 'react';
import type { AccountSummary, ItemKind, SheetRow } from '../../api/client';
import { count, fullDay, matchNames, money, nothing, percent, plural, whole } from '../../app/format';
import { MatchChip, WeightMark } from '../../ui/Marks';
import type { SheetView } from './sheetQuery';

/** Fields that are edited in place. */
export type EditField = 'name' | 'match' | 'state' | 'maxCpc' | 'dailyBudget' | 'labels' | 'finalUrl';

export interface Column {
  key: string;
  title: string;
  /** Width in pixels; the columns that may grow say so. */
  width: number;
  grows?: boolean;
  numeric?: boolean;
  sort?: string;
  /** The views that have this column; all when none are named. */
  views?: readonly SheetView[];
  /** Shown unless a person chooses otherwise. */
  usual?: readonly SheetView[] | true;
  /** The field that Enter edits and a paste fills in this column, if the row has it. */
  edits?: (row: SheetRow) => EditField | null;
  cell: (row: SheetRow, account: AccountSummary) => ReactNode;
  /** The cell as it goes to a spreadsheet: plain, without signs. */
  text: (row: SheetRow) => string;
}

const withFigures: readonly SheetView[] = ['outline', 'campaigns', 'adGroups', 'keywords', 'ads'];
const flat: readonly SheetView[] = ['adGroups', 'keywords', 'negatives', 'ads'];

function plain(value: number | null | undefined) {
  return value == null ? '' : String(value);
}

function has(row: SheetRow, ...kinds: ItemKind[]) {
  return kinds.includes(row.kind);
}

function figure(
  key: string,
  title: string,
  width: number,
  usual: boolean,
  value: (row: SheetRow) => number | null | undefined,
  written: (value: number | null | undefined, account: AccountSummary) => string,
): Column {
  return {
    key,
    title,
    width,
    numeric: true,
    sort: key,
    views: withFigures,
    usual: usual || undefined,
    cell: (row, account) =>
      has(row, 'negativeKeyword', 'negativeList') ? null : written(value(row), account),
    text: (row) => plain(value(row)),
  };
}

function ratio(above: number | null | undefined, below: number | null | undefined) {
  return above == null || !below ? null : above / below;
}

const columns: readonly Column[] = [
  {
    key: 'name',
    title: 'Item',
    width: 180,
    grows: true,
    sort: 'name',
    usual: true,
    edits: (row) => (row.kind === 'textAd' ? null : 'name'),
    cell: () => null,
    text: (row) => row.name,
  },
  {
    key: 'place',
    title: 'Campaign / ad group',
    width: 140,
    grows: true,
    sort: 'campaign',
    views: flat,
    usual: true,
    cell: (row) => (
      <span className="text-ink-2" title={placeOf(row)}>
        {placeOf(row)}
      </span>
    ),
    text: placeOf,
  },
  {
    key: 'match',
    title: 'Match',
    views: ['outline', 'keywords', 'negatives'],
    width: 82,
    sort: 'match',
    usual: true,
    edits: (row) => (row.match ? 'match' : null),
    cell: (row) =>
      row.match ? <MatchChip match={row.match} negative={row.kind === 'negativeKeyword'} /> : null,
    text: (row) => (row.match ? matchNames[row.match] : ''),
  },
  {
    key: 'state',
    title: 'State',
    views: withFigures,
    width: 56,
    sort: 'state',
    usual: true,
    edits: (row) => (row.state ? 'state' : null),
    cell: (row) => (row.state === 'paused' ? 'paused' : null),
    text: (row) => row.state ?? '',
  },
  {
    key: 'maxCpc',
    title: 'Max CPC',
    views: ['outline', 'adGroups', 'keywords'],
    width: 70,
    numeric: true,
    sort: 'maxCpc',
    usual: true,
    edits: (row) => (has(row, 'keyword', 'adGroup') ? 'maxCpc' : null),
    cell: (row, account) => {
      if (!has(row, 'keyword', 'adGroup')) return null;
      return row.maxCpc == null && row.inheritedMaxCpc != null ? (
        <span className="text-ink-3" title="From the ad group">
          {money(row.inheritedMaxCpc, account)}
        </span>
      ) : (
        money(row.maxCpc, account)
      );
    },
    text: (row) => plain(row.maxCpc),
  },
  {
    key: 'dailyBudget',
    title: 'Daily budget',
    views: ['outline', 'campaigns'],
    width: 86,
    numeric: true,
    sort: 'dailyBudget',
    usual: true,
    edits: (row) => (row.kind === 'campaign' ? 'dailyBudget' : null),
    cell: (row, account) => (row.kind === 'campaign' ? money(row.dailyBudget, account) : null),
    text: (row) => plain(row.dailyBudget),
  },
  {
    key: 'device',
    title: 'Prefers',
    views: ['ads'],
    width: 74,
    sort: 'device',
    usual: true,
    cell: (row) => (row.devicePreference ? `${row.devicePreference}s` : null),
    text: (row) => row.devicePreference ?? '',
  },
  {
    key: 'finalUrl',
    title: 'Final URL',
    views: ['keywords', 'ads'],
    width: 200,
    sort: 'finalUrl',
    edits: (row) => (row.kind === 'keyword' ? 'finalUrl' : null),
    cell: (row) => (
      <span className="text-ink-2" title={row.finalUrl ?? undefined}>
        {row.finalUrl}
      </span>
    ),
    text: (row) => row.finalUrl ?? '',
  },
  {
    key: 'dates',
    title: 'Start – end',
    views: ['campaigns'],
    width: 150,
    sort: 'startDate',
    cell: (row) => datesOf(row),
    text: datesOf,
  },
  {
    key: 'shared',
    title: 'Shared by',
    views: ['lists'],
    width: 120,
    usual: true,
    cell: (row) => plural(row.campaignIds?.length ?? 0, 'campaign'),
    text: (row) => plain(row.campaignIds?.length),
  },
  figure('impressions', 'Impressions', 80, false, (row) => row.impressions, whole),
  figure('clicks', 'Clicks', 58, true, (row) => row.clicks, whole),
  figure(
    'ctr',
    'CTR',
    58,
    false,
    (row) => ratio(row.clicks, row.impressions),
    (share) => percent(share),
  ),
  figure('cost', 'Cost', 76, true, (row) => row.cost, money),
  figure('cpc', 'CPC', 58, false, (row) => ratio(row.cost, row.clicks), money),
  figure('conversions', 'Conv.', 52, true, (row) => row.conversions, count),
  figure(
    'conversionRate',
    'Conv. rate',
    70,
    false,
    (row) => ratio(row.conversions, row.clicks),
    (share) => percent(share),
  ),
  figure(
    'costPerConversion',
    'Cost / conv.',
    80,
    true,
    (row) => row.costPerConversion,
    (value, account) => (value == null ? nothing : money(value, account)),
  ),
  figure('value', 'Value', 80, false, (row) => row.value, money),
  {
    key: 'labels',
    title: 'Labels',
    width: 130,
    usual: ['negatives', 'lists'],
    edits: () => 'labels',
    cell: (row) => <Labels row={row} />,
    text: (row) => row.labels.join('; '),
  },
  {
    key: 'needs',
    title: 'Needs',
    width: 136,
    usual: withFigures,
    cell: (row) => <Needs row={row} />,
    text: (row) => row.needs.map((need) => need.message).join('; '),
  },
];

/** The columns that a view can have: what can never be filled there is left out. */
export function columnsOf(view: SheetView): readonly Column[] {
  return columns.filter((column) => !column.views || column.views.includes(view));
}

/** The keys of the columns that a view shows unless a person chooses otherwise. */
export function usualColumns(view: SheetView): string[] {
  return columnsOf(view)
    .filter((column) => column.usual === true || column.usual?.includes(view))
    .map((column) => column.key);
}

/** Columns by their keys, in that order; the item itself always comes first. */
export function chosenColumns(view: SheetView, keys: readonly string[]): readonly Column[] {
  const known = columnsOf(view);
  const chosen = keys.flatMap((key) => known.find((column) => column.key === key) ?? []);
  return [known[0], ...chosen.filter((column) => column.key !== 'name')].filter((column) => !!column);
}

function placeOf(row: SheetRow): string {
  if (row.list) return `list: ${row.list}`;
  return row.kind === 'adGroup' || !row.adGroup ? (row.campaign ?? '') : `${row.campaign} / ${row.adGroup}`;
}

function datesOf(row: SheetRow): string {
  if (!row.startDate && !row.endDate) return '';
  return `${row.startDate ? fullDay(row.startDate) : 'at once'} – ${row.endDate ? fullDay(row.endDate) : 'open'}`;
}

function Labels({ row }: { row: SheetRow }) {
  return (
    <span className="flex gap-1 overflow-hidden" title={row.labels.join('; ')}>
      {row.labels.map((label) => (
        <span key={label} className="rounded-sm bg-sunk px-1.5 text-[12px] text-ink-2">
          {label}
        </span>
      ))}
    </span>
  );
}

function Needs({ row }: { row: SheetRow }) {
  const need = row.needs[0];
  if (need)
    return (
      <span title={row.needs.map((each) => each.detail).join('\n')}>
        <WeightMark weight={need.weight}>{need.message}</WeightMark>
        {row.needs.length > 1 && <span className="text-ink-3"> +{row.needs.length - 1}</span>}
      </span>
    );
  if (row.review === 'pending') return <span className="text-ink-3">in review</span>;
  return null;
}
