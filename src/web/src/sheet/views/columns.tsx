import { useMemo, type ReactNode } from 'react';
import type { AccountSummary, Schemas, SheetRow } from '../../api/client';
import { textsIn, useKinds, type ItemField, type Kind, type Kinds } from '../../api/kinds';
import { isCell, isNumeric, shown, typed } from '../../items/values';
import { count, money, nothing, percent, whole } from '../../ui/format';
import { WeightMark } from '../../ui/Marks';
import type { SheetView } from '../sheetQuery';

export interface Column {
  key: string;
  title: string;
  /** Width in pixels; the columns that may grow say so. */
  width: number;
  grows?: boolean;
  numeric?: boolean;
  sort?: string;
  /** Shown unless a person chooses otherwise. */
  usual: boolean;
  /** Number of the part that its cells hold, from 1, where a value has several. */
  part?: number;
  /** The field that Enter edits and a paste fills in this column, if the row has it. */
  edits?: (row: SheetRow) => ItemField | null;
  cell: (row: SheetRow, account: AccountSummary) => ReactNode;
  /** The whole of a cell that has no room for it, where that is more than its text. */
  full?: (row: SheetRow) => string;
  /** The cell as it goes to a spreadsheet: plain, without signs. */
  text: (row: SheetRow, account: AccountSummary) => string;
}

type Figures = Schemas['RowFigures'];

function plain(value: number | null | undefined) {
  return value == null ? '' : String(value);
}

function figure(
  key: keyof Figures,
  title: string,
  width: number,
  usual: boolean,
  written: (value: number | null | undefined, account: AccountSummary) => string,
): (kinds: Kinds) => Column {
  return (kinds) => ({
    key,
    title,
    width,
    numeric: true,
    sort: key,
    usual,
    cell: (row, account) => (kinds.of(row.kind).hasFigures ? written(row.figures?.[key], account) : null),
    text: (row) => plain(row.figures?.[key]),
  });
}

const share = (value: number | null | undefined) => percent(value);

const figures = [
  figure('impressions', 'Impressions', 80, false, whole),
  figure('clicks', 'Clicks', 58, true, whole),
  figure('ctr', 'CTR', 58, false, share),
  figure('cost', 'Cost', 76, true, money),
  figure('cpc', 'CPC', 58, false, money),
  figure('conversions', 'Conv.', 52, true, count),
  figure('conversionRate', 'Conv. rate', 70, false, share),
  figure('costPerConversion', 'Cost / conv.', 80, true, (value, account) =>
    value == null ? nothing : money(value, account),
  ),
  figure('value', 'Value', 80, false, money),
];

/** The kinds whose rows a view can show. */
export function kindsIn(view: SheetView, kinds: Kinds): readonly Kind[] {
  return view === 'outline' ? kinds.inOutline : [kinds.of(view)];
}

const nameColumn: (kinds: Kinds) => Column = (kinds) => ({
  key: 'name',
  title: 'Item',
  width: 180,
  grows: true,
  sort: 'name',
  usual: true,
  edits: (row) => {
    const field = kinds.nameField(row.kind);
    return field?.form === 'text' ? field : null;
  },
  cell: () => null,
  text: (row) => row.name,
});

const placeColumn: Column = {
  key: 'place',
  title: 'Campaign / ad group',
  width: 140,
  grows: true,
  sort: 'campaign',
  usual: true,
  cell: (row) => (
    <span className="text-ink-2" title={placeOf(row)}>
      {placeOf(row)}
    </span>
  ),
  text: placeOf,
};

/** What is looked at first stands first, whatever the kinds. */
const leading: readonly string[] = ['match', 'state', 'maxCpc', 'dailyBudget'];

/** The rest is read from left to right in this order. */
const order: readonly ItemField['form'][] = [
  'choice',
  'amount',
  'percent',
  'distance',
  'whole',
  'return',
  'day',
  'flags',
  'text',
  'lines',
  'references',
  'labels',
];

/** The columns of fields: one for each name, whatever the kinds that have it. */
function fieldColumns(shownKinds: readonly Kind[], kinds: Kinds): Column[] {
  const byName = new Map<string, ItemField>();
  const twice = new Set<string>();
  for (const kind of shownKinds) {
    for (const field of kind.fields) {
      // A name of several parts is read in the first column and changed part by part.
      if (field.isName && field.form !== 'lines') continue;
      const before = byName.get(field.name);
      if (!before) byName.set(field.name, field);
      else if (before.isUsual && field.isUsual) twice.add(field.name);
    }
  }
  // Among many kinds, what is usual in only one of them is shown where it is an amount.
  const isUsual = (field: ItemField) =>
    field.isUsual && (shownKinds.length === 1 || field.form === 'amount' || twice.has(field.name));
  return [...byName.values()]
    .sort((one, other) => rankOf(one) - rankOf(other))
    .flatMap((field) =>
      field.form === 'lines' ? partColumns(field, shownKinds, kinds) : [fieldColumn(field)],
    );

  function fieldColumn(field: ItemField): Column {
    return {
      key: field.name,
      title: titleOf(field),
      width: field.width,
      numeric: isNumeric(field),
      sort: field.isSortable ? field.name : undefined,
      usual: isUsual(field),
      edits: (row: SheetRow) => {
        const mine = kinds.field(row.kind, field.name);
        return mine && isCell(mine) ? mine : null;
      },
      cell: (row: SheetRow, account: AccountSummary) =>
        cellOf(row, kinds.field(row.kind, field.name), account, kinds),
      text: (row: SheetRow, account: AccountSummary) => {
        const mine = kinds.field(row.kind, field.name);
        return mine ? typed(mine, row.values[field.name], account) : '';
      },
    };
  }
}

/** Parts that have a column each, unless the network says how many there can be. */
const usualParts = 3;
const mostParts = 15;

/** A column for each part of a value of several: the second headline is a cell like any other. */
function partColumns(field: ItemField, shownKinds: readonly Kind[], kinds: Kinds): Column[] {
  const name = field.partName ?? field.lowLabel;
  const title = name.charAt(0).toUpperCase() + name.slice(1);
  const count = Math.min(mostParts, field.limits.most ?? usualParts);
  const isAlone = shownKinds.length === 1;
  return Array.from({ length: count }, (_, place) => ({
    key: `${field.name}.${place + 1}`,
    title: `${shortParts[name] ?? title} ${place + 1}`,
    width: 150,
    part: place + 1,
    usual: isAlone && place < usualParts,
    edits: (row) => kinds.field(row.kind, field.name) ?? null,
    cell: (row) => {
      const text = textsIn(row, field.name)[place] ?? '';
      return (
        <span className="text-ink-2" title={text || undefined}>
          {text}
        </span>
      );
    },
    text: (row) => textsIn(row, field.name)[place] ?? '',
  }));
}

const shortParts: Partial<Record<string, string>> = { 'display path part': 'Path' };

function rankOf(field: ItemField) {
  const place = leading.indexOf(field.name);
  return place >= 0 ? place : leading.length + order.indexOf(field.form);
}

const shortTitles: Partial<Record<string, string>> = { match: 'Match', devicePreference: 'Device' };

function titleOf(field: ItemField) {
  return shortTitles[field.name] ?? (field.form === 'lines' ? `${field.label}s` : field.label);
}

function cellOf(row: SheetRow, field: ItemField | undefined, account: AccountSummary, kinds: Kinds) {
  if (!field) return null;
  const value = row.values[field.name];
  const above = row.inherited[field.name];
  if (value === undefined && above !== undefined && field.inheritedFrom)
    return (
      <span className="text-ink-3" title={`From the ${kinds.noun(field.inheritedFrom)}`}>
        <span role="img" aria-label={`from the ${kinds.noun(field.inheritedFrom)}`}>
          ↑
        </span>{' '}
        {shown(field, above, account)}
      </span>
    );
  return shown(field, value, account, row.kind === 'negativeKeyword');
}

/** The columns that a view can have: what can never be filled there is left out. */
export function columnsOf(view: SheetView, kinds: Kinds): readonly Column[] {
  const shownKinds = kindsIn(view, kinds);
  const all = fieldColumns(shownKinds, kinds);
  const labels = all.filter((column) => column.key === 'labels');
  const withFigures = shownKinds.some((kind) => kind.hasFigures);
  return [
    nameColumn(kinds),
    ...(view !== 'outline' && shownKinds[0]?.levels.some((level) => level !== 'account')
      ? [placeColumn]
      : []),
    ...all.filter((column) => column.key !== 'labels'),
    ...(withFigures ? figures.map((make) => make(kinds)) : []),
    // Where there are no figures, there is room for labels.
    ...labels.map((column) => ({ ...column, usual: !withFigures })),
    {
      key: 'needs',
      title: 'Needs',
      width: 172,
      usual: withFigures,
      cell: (row) => <Needs row={row} />,
      text: (row) => (row.needs ?? []).map((need) => need.message).join('; '),
      full: (row) => (row.needs ?? []).map((need) => `${need.message}: ${need.detail}`).join(' '),
    },
  ];
}

/** The keys of the columns that a view shows unless a person chooses otherwise. */
export function usualColumns(view: SheetView, kinds: Kinds): string[] {
  return columnsOf(view, kinds)
    .filter((column) => column.usual)
    .map((column) => column.key);
}

/** Columns by their keys, in that order; the item itself always comes first. */
export function chosenColumns(view: SheetView, keys: readonly string[], kinds: Kinds): readonly Column[] {
  const known = columnsOf(view, kinds);
  const chosen = keys.flatMap((key) => known.find((column) => column.key === key) ?? []);
  return [known[0], ...chosen.filter((column) => column.key !== 'name')].filter((column) => !!column);
}

/** The columns of a view as a page needs them: by the keys that a person has arranged, as wide as that person made them. */
export function useColumns(
  view: SheetView,
  keys: readonly string[] | undefined,
  widths: Readonly<Record<string, number>> = {},
) {
  const kinds = useKinds();
  const list = (keys ?? usualColumns(view, kinds)).join(' ');
  const columns = useMemo(
    () =>
      chosenColumns(view, list.split(' '), kinds).map((column) => {
        const width = widths[column.key];
        return width === undefined ? column : { ...column, width, grows: false };
      }),
    [view, list, kinds, widths],
  );
  return { keys: list.split(' '), columns };
}

function placeOf(row: SheetRow): string {
  if (row.list) return `list: ${row.list}`;
  return row.kind === 'adGroup' || !row.adGroup ? (row.campaign ?? '') : `${row.campaign} / ${row.adGroup}`;
}

function Needs({ row }: { row: SheetRow }) {
  const needs = row.needs ?? [];
  const need = needs[0];
  if (need)
    return (
      <span title={needs.map((each) => each.detail).join('\n')}>
        <WeightMark weight={need.weight}>{need.message}</WeightMark>
        {needs.length > 1 && <span className="text-ink-3"> +{needs.length - 1}</span>}
      </span>
    );
  if (row.review === 'pending') return <span className="text-ink-3">in review</span>;
  return null;
}
