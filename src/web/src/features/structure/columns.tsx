import type { ReactNode } from 'react';
import type { AccountSummary, SheetRow } from '../../api/client';
import type { SheetView } from './sheetQuery';
import { count, money, nothing, whole } from '../../app/format';
import { MatchChip, WeightMark } from '../../ui/Marks';

/** Fields that are edited in place. */
export type EditField = 'name' | 'match' | 'state' | 'maxCpc' | 'dailyBudget';

export interface Column {
  key: string;
  title: string;
  width: string;
  numeric?: boolean;
  sort?: string;
  /** The views that have this column; all when none are named. */
  views?: readonly SheetView[];
  /** The field that Enter edits in this column, if the row has it. */
  edits?: (row: SheetRow) => EditField | null;
  cell: (row: SheetRow, account: AccountSummary) => ReactNode;
}

const columns: readonly Column[] = [
  {
    key: 'name',
    title: 'Item',
    width: 'minmax(220px,1fr)',
    sort: 'name',
    edits: (row) => (row.kind === 'textAd' ? null : 'name'),
    cell: () => null,
  },
  {
    key: 'place',
    title: 'Campaign / ad group',
    width: 'minmax(160px,1fr)',
    sort: 'campaign',
    views: ['adGroups', 'keywords', 'negatives', 'ads'],
    cell: (row) => (
      <span className="text-ink-2" title={placeOf(row)}>
        {placeOf(row)}
      </span>
    ),
  },
  {
    key: 'match',
    title: 'Match',
    views: ['outline', 'keywords', 'negatives'],
    width: '82px',
    sort: 'match',
    edits: (row) => (row.match ? 'match' : null),
    cell: (row) =>
      row.match ? <MatchChip match={row.match} negative={row.kind === 'negativeKeyword'} /> : null,
  },
  {
    key: 'state',
    title: 'State',
    views: ['outline', 'campaigns', 'adGroups', 'keywords', 'ads'],
    width: '56px',
    sort: 'state',
    edits: (row) => (row.state ? 'state' : null),
    cell: (row) => (row.state === 'paused' ? 'paused' : null),
  },
  {
    key: 'maxCpc',
    title: 'Max CPC',
    views: ['outline', 'adGroups', 'keywords'],
    width: '70px',
    numeric: true,
    sort: 'maxCpc',
    edits: (row) => (row.kind === 'keyword' || row.kind === 'adGroup' ? 'maxCpc' : null),
    cell: (row, account) => {
      if (row.kind !== 'keyword' && row.kind !== 'adGroup') return null;
      return row.maxCpc == null && row.inheritedMaxCpc != null ? (
        <span className="text-ink-3" title="From the ad group">
          {money(row.inheritedMaxCpc, account)}
        </span>
      ) : (
        money(row.maxCpc, account)
      );
    },
  },
  {
    key: 'dailyBudget',
    title: 'Daily budget',
    views: ['outline', 'campaigns'],
    width: '86px',
    numeric: true,
    sort: 'dailyBudget',
    edits: (row) => (row.kind === 'campaign' ? 'dailyBudget' : null),
    cell: (row, account) => (row.kind === 'campaign' ? money(row.dailyBudget, account) : null),
  },
  {
    key: 'clicks',
    title: 'Clicks 28 d',
    width: '74px',
    numeric: true,
    cell: (row) => (row.kind === 'negativeKeyword' ? null : whole(row.clicks)),
  },
  {
    key: 'cost',
    title: 'Cost 28 d',
    width: '78px',
    numeric: true,
    cell: (row, account) => (row.kind === 'negativeKeyword' ? null : money(row.cost, account)),
  },
  {
    key: 'conversions',
    title: 'Conv.',
    width: '52px',
    numeric: true,
    cell: (row) => (row.kind === 'negativeKeyword' ? null : count(row.conversions)),
  },
  {
    key: 'costPerConversion',
    title: 'Cost / conv.',
    width: '80px',
    numeric: true,
    cell: (row, account) =>
      row.kind === 'negativeKeyword'
        ? null
        : row.costPerConversion == null
          ? nothing
          : money(row.costPerConversion, account),
  },
  {
    key: 'needs',
    title: 'Needs',
    width: '178px',
    cell: (row) => <Needs row={row} />,
  },
];

/** The columns of a view: what can never be filled there is left out. */
export function columnsOf(view: SheetView): readonly Column[] {
  return columns.filter((column) => !column.views || column.views.includes(view));
}

function placeOf(row: SheetRow) {
  return row.kind === 'adGroup' || !row.adGroup ? row.campaign : `${row.campaign} / ${row.adGroup}`;
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
