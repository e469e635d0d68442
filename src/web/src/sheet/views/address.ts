import type { ItemState, MatchType } from '../../api/client';
import type { Condition, SheetTest } from './conditions';
import { plainLook, type Look } from './look';

/** What of a look stands in the address; the widths of columns are a matter of the screen. */
type Addressed = Omit<Look, 'columns'>;

/** The names under which the look of a sheet stands in the address. */
export const addressNames = ['q', 'state', 'match', 'only', 'if', 'days', 'sort', 'columns'] as const;

/** A look as it stands in the address; what is as usual is left out. */
export function toAddress(
  look: Addressed,
  columns: readonly string[] | undefined,
): Record<string, string | null> {
  const only = [
    look.changed ? 'changed' : '',
    look.needs ? 'needs' : '',
    look.removed ? 'removed' : '',
  ].filter(Boolean);
  return {
    q: look.text || null,
    state: look.state === 'any' ? null : look.state,
    match: look.match === 'any' ? null : look.match,
    only: only.join(',') || null,
    if: look.conditions.length > 0 ? JSON.stringify(look.conditions.map(toParts)) : null,
    days: look.figureDays === plainLook.figureDays ? null : String(look.figureDays),
    sort: look.sort ? `${look.sort.descending ? '-' : ''}${look.sort.by}` : null,
    columns: columns ? columns.join(',') : null,
  };
}

const toParts = ({ field, test, values }: Condition) => [field, test, ...values];

/** A look read back from an address that anybody may have written: what cannot be read is left out. */
export function fromAddress(parameters: URLSearchParams): Addressed & { columnKeys: string[] | undefined } {
  const only = (parameters.get('only') ?? '').split(',');
  const sort = parameters.get('sort');
  const days = Number(parameters.get('days'));
  return {
    text: parameters.get('q') ?? '',
    state: (parameters.get('state') as ItemState | null) ?? 'any',
    match: (parameters.get('match') as MatchType | null) ?? 'any',
    changed: only.includes('changed'),
    needs: only.includes('needs'),
    removed: only.includes('removed'),
    conditions: conditionsOf(parameters.get('if')),
    figureDays: Number.isInteger(days) && days > 0 && days <= 3660 ? days : plainLook.figureDays,
    sort: sort ? { by: sort.replace(/^-/, ''), descending: sort.startsWith('-') } : null,
    columnKeys: parameters.get('columns')?.split(',').filter(Boolean),
  };
}

function conditionsOf(text: string | null): Condition[] {
  if (!text) return [];
  try {
    const parts: unknown = JSON.parse(text);
    if (!Array.isArray(parts)) return [];
    return parts.flatMap((each: unknown) =>
      Array.isArray(each) && each.length >= 2 && each.every((part) => typeof part === 'string')
        ? [{ field: each[0] as string, test: each[1] as SheetTest, values: each.slice(2) as string[] }]
        : [],
    );
  } catch {
    return [];
  }
}
