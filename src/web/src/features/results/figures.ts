import type { AccountSummary, Schemas } from '../../api/client';
import { count, money, percent, whole } from '../../ui/format';

export type FigureKey = keyof Schemas['ComparedFigures'];

interface Figure {
  key: FigureKey;
  title: string;
  short: string;
  how: string;
  write: (value: number | null | undefined, account: AccountSummary) => string;
}

const share = (value: number | null | undefined) => percent(value);

/** The figures in the order in which they follow from each other, and how each comes about. */
export const figures: readonly Figure[] = [
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
];

export function figureOf(key: FigureKey): Figure {
  return figures.find((figure) => figure.key === key) ?? (figures[0] as Figure);
}
