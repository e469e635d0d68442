import type { AccountSummary, Schemas } from '../../api/client';
import { count, money, percent, whole } from '../../ui/format';

export type FigureKey = keyof Schemas['ComparedFigures'];

interface Figure {
  key: FigureKey;
  title: string;
  short: string;
  how: string;
  write: (value: number | null | undefined, account: AccountSummary) => string;
  group: FigureGroup;
}

/** What ads brought, and where they stood among others. */
export type FigureGroup = 'brought' | 'stood';

export const groups: readonly { value: FigureGroup; label: string }[] = [
  { value: 'brought', label: 'What it brought' },
  { value: 'stood', label: 'Where it stood' },
];

const share = (value: number | null | undefined) => percent(value);

/** The figures in the order in which they follow from each other, and how each comes about. */
const brought: readonly Omit<Figure, 'group'>[] = [
  { key: 'impressions', title: 'Impressions', short: 'Impr.', how: 'Times an ad was shown.', write: whole },
  { key: 'clicks', title: 'Clicks', short: 'Clicks', how: 'Times an ad was clicked.', write: whole },
  { key: 'clickThroughRate', title: 'CTR', short: 'CTR', how: 'Clicks ÷ impressions.', write: share },
  { key: 'averageCpc', title: 'Average CPC', short: 'Avg CPC', how: 'Cost ÷ clicks.', write: money },
  { key: 'cost', title: 'Cost', short: 'Cost', how: 'What the clicks cost.', write: money },
  {
    key: 'conversions',
    title: 'Conversions',
    short: 'Conv.',
    how: 'Conversions that followed a click.',
    write: count,
  },
  {
    key: 'conversionRate',
    title: 'Conversion rate',
    short: 'Rate',
    how: 'Conversions ÷ clicks.',
    write: share,
  },
  {
    key: 'costPerConversion',
    title: 'Cost per conversion',
    short: 'Cost / conv.',
    how: 'Cost ÷ conversions.',
    write: money,
  },
  {
    key: 'breakEven',
    title: 'Breaks even at',
    short: 'Breaks even',
    how: 'Value ÷ conversions: at that cost a conversion wins nothing and loses nothing.',
    write: money,
  },
];

const stood: readonly Omit<Figure, 'group'>[] = [
  {
    key: 'impressionShare',
    title: 'Impression share',
    short: 'Impr. share',
    how: 'Impressions ÷ searches that the keywords could have answered.',
    write: share,
  },
  {
    key: 'rankLossShare',
    title: 'Lost to rank',
    short: 'To rank',
    how: 'Share of these searches in which bid × quality won no place.',
    write: share,
  },
  {
    key: 'budgetLossShare',
    title: 'Lost to budget',
    short: 'To budget',
    how: 'Share of these searches that the daily budget did not reach for.',
    write: share,
  },
  {
    key: 'topShare',
    title: 'Above the results',
    short: 'Above',
    how: 'Share of impressions above the results.',
    write: share,
  },
  {
    key: 'firstShare',
    title: 'First of all',
    short: 'First',
    how: 'Share of impressions in the first place.',
    write: share,
  },
  {
    key: 'averagePlace',
    title: 'Average place',
    short: 'Place',
    how: 'Average place on the page; 1 is the first.',
    write: count,
  },
];

export const figures: readonly Figure[] = [
  ...brought.map((figure) => ({ ...figure, group: 'brought' as const })),
  ...stood.map((figure) => ({ ...figure, group: 'stood' as const })),
];

export function figureOf(key: FigureKey): Figure {
  return figures.find((figure) => figure.key === key) ?? (figures[0] as Figure);
}
