import { useSearchParams } from 'react-router';
import { useScope } from '../../app/scope';
import { comparisons, daysOf, presets, type ComparedDays, type Preset } from './period';
import type { Grain } from './DayChart';
import { pictures, type Picture } from './pictures/pictures';

const grains = ['day', 'week', 'month'] as const satisfies readonly Grain[];

/** What stands of these pages in an address, besides the scope. */
const named = [
  'period',
  'first',
  'last',
  'against',
  'beforeFirst',
  'beforeLast',
  'level',
  'then',
  'grain',
  'picture',
  'condition',
  'view',
  'figures',
  'figure',
  'columns',
] as const;

const oneOf = <T extends string>(values: readonly T[], text: string | null): T | undefined =>
  values.find((each) => each === text);

/** What Results shows, kept in the address: it survives Back, a reload and a link to a colleague. */
export function useResultsAddress(newest: string | null) {
  const { campaignId, adGroupId } = useScope();
  const [parameters, setParameters] = useSearchParams();
  const set = (values: Partial<Record<(typeof named)[number], string | null>>) =>
    setParameters((current) => {
      const next = new URLSearchParams(current);
      for (const [name, value] of Object.entries(values)) {
        if (value === null) next.delete(name);
        else next.set(name, value);
      }
      return next;
    });
  const preset: Preset = presets.find((each) => each.value === parameters.get('period'))?.value ?? 'last28';
  const days =
    preset === 'own'
      ? { first: parameters.get('first') ?? newest ?? '', last: parameters.get('last') ?? newest ?? '' }
      : newest
        ? daysOf(preset, newest)
        : null;
  const against = comparisons.find((each) => each.value === parameters.get('against'))?.value ?? 'daysBefore';
  const beforeFirst = parameters.get('beforeFirst') ?? '';
  const beforeLast = parameters.get('beforeLast') ?? '';
  const isWhole = days?.first && days.last && (against !== 'chosen' || (beforeFirst && beforeLast));
  const compared: ComparedDays | null =
    days && isWhole
      ? {
          ...days,
          against,
          ...(against === 'chosen' ? { beforeFirst, beforeLast } : {}),
        }
      : null;
  return {
    set,
    /** All of it, to be kept as a view. */
    all: Object.fromEntries(
      named.flatMap((name) => {
        const value = parameters.get(name);
        return value === null ? [] : [[name, value]];
      }),
    ),
    /** Shows a view: what it does not say is as usual. */
    open: (values: Record<string, string>) =>
      set(Object.fromEntries(named.map((name) => [name, values[name] ?? null]))),
    preset,
    days,
    against,
    beforeFirst,
    beforeLast,
    compared,
    choosePreset: (next: Preset) =>
      set(
        next === 'own'
          ? { period: next, first: days?.first ?? null, last: days?.last ?? null }
          : { period: next, first: null, last: null },
      ),
    chooseComparison: (next: string) =>
      set(
        next === 'chosen' && days
          ? { against: next, beforeFirst: days.first, beforeLast: days.last }
          : { against: next === 'daysBefore' ? null : next, beforeFirst: null, beforeLast: null },
      ),
    // The level follows the scope: inside a campaign its ad groups, inside an ad group its keywords, unless one is chosen.
    natural:
      adGroupId !== null
        ? ('keyword' as const)
        : campaignId !== null
          ? ('adGroup' as const)
          : ('campaign' as const),
    rows: parameters.get('level'),
    then: parameters.get('then'),
    grain: oneOf(grains, parameters.get('grain')) ?? 'day',
    picture: oneOf<Picture>(pictures, parameters.get('picture')) ?? 'time',
    condition: parameters.get('condition'),
    view: parameters.get('view'),
    group: parameters.get('figures') === 'stood' ? ('stood' as const) : ('brought' as const),
    figure: parameters.get('figure'),
    columns: parameters.get('columns')?.split(',').filter(Boolean) ?? null,
  };
}

export type ResultsAddress = ReturnType<typeof useResultsAddress>;
