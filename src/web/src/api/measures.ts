import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { count, money, nothing, percent, whole, type Currency } from '../ui/format';
import { useAccount } from './account';
import { answer, api, type Schemas } from './client';

export type Measure = Schemas['MeasureView'];
export type ComparedFigure = Schemas['ComparedFigure'];
/** Figures by the keys of their measures. */
export type Figures = Readonly<Record<string, ComparedFigure>>;

const noFigure: ComparedFigure = { now: null, before: null, change: null };

/** What the server says of measures: nothing here knows how one comes about. */
export class Measures {
  readonly all: readonly Measure[];
  readonly #currency: Currency;

  constructor(all: readonly Measure[], currency: Currency) {
    this.all = all;
    this.#currency = currency;
  }

  find(key: string): Measure | undefined {
    return this.all.find((each) => each.key === key);
  }

  titleOf(key: string): string {
    return this.find(key)?.title ?? '';
  }

  of(group: Schemas['MeasureGroup']): readonly Measure[] {
    return this.all.filter((each) => each.group === group);
  }

  /** A figure as it is written. */
  write(key: string, value: number | null | undefined): string {
    switch (this.find(key)?.form) {
      case 'money':
        return money(value, this.#currency);
      case 'share':
        return percent(value);
      case 'whole':
        return whole(value);
      case 'number':
        return count(value);
      case undefined:
        return nothing;
    }
  }
}

/** The figure of a measure; none where it is not known of these. */
export const figureOf = (figures: Figures, key: string): ComparedFigure => figures[key] ?? noFigure;

/** The measures of the account: those that everybody has, and its own. */
export function useMeasures(): Measures {
  const account = useAccount();
  const { data } = useQuery({
    queryKey: [account.id, 'measures'],
    staleTime: 60_000,
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/accounts/{accountId}/results/measures', {
          params: { path: { accountId: account.id } },
          signal,
        }),
      ),
  });
  return useMemo(() => new Measures(data ?? [], account), [data, account]);
}
