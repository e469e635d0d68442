import type { ItemState, MatchType, Schemas } from '../../api/client';
import type { Condition } from './conditions';
import { viewOf, type SheetQuery, type SheetView } from '../sheetQuery';

/** What the sheet shows, but for the scope and the folds. */
export interface Look {
  text: string;
  state: ItemState | 'any';
  match: MatchType | 'any';
  changed: boolean;
  /** What was removed, in place of what there is. */
  removed: boolean;
  needs: boolean;
  conditions: Condition[];
  figureDays: number;
  sort: { by: string; descending: boolean } | null;
  /** Keys of the columns of each view that a person has arranged. */
  columns: Partial<Record<SheetView, string[]>>;
}

export const plainLook: Look = {
  text: '',
  state: 'any',
  match: 'any',
  changed: false,
  removed: false,
  needs: false,
  conditions: [],
  figureDays: 28,
  sort: null,
  columns: {},
};

export function isFiltered(look: Look): boolean {
  return (
    look.text !== '' ||
    look.state !== 'any' ||
    look.match !== 'any' ||
    look.changed ||
    look.removed ||
    look.needs ||
    look.conditions.length > 0
  );
}

export function queryOf(
  look: Look,
  view: SheetView,
  place: Pick<SheetQuery, 'campaignId' | 'adGroupId' | 'stepId'> &
    Partial<Pick<SheetQuery, 'variant' | 'listId' | 'foldedCampaigns' | 'foldedAdGroups' | 'foldedBesides'>>,
): SheetQuery {
  return {
    kind: view === 'outline' ? null : view,
    text: look.text,
    state: look.state === 'any' ? null : look.state,
    match: look.match === 'any' ? null : look.match,
    changed: look.changed,
    removed: look.removed,
    needs: look.needs,
    conditions: look.conditions,
    figureDays: look.figureDays,
    sort: look.sort?.by ?? null,
    descending: look.sort?.descending ?? false,
    kinds: [],
    foldedCampaigns: [],
    foldedAdGroups: [],
    foldedBesides: [],
    ...place,
  };
}

/** A saved view, read back. */
export function lookOf(saved: Schemas['SheetLook'], now: Look): { view: SheetView; look: Look } {
  const request = saved.request;
  const view = viewOf(request);
  return {
    view,
    look: {
      text: request.text ?? '',
      state: request.state ?? 'any',
      match: request.match ?? 'any',
      changed: request.changed ?? false,
      removed: request.removed ?? false,
      needs: request.needs ?? false,
      conditions: request.conditions ?? [],
      figureDays: request.figureDays ?? 28,
      sort: request.sort ? { by: request.sort, descending: request.descending ?? false } : null,
      columns: { ...now.columns, [view]: saved.columns },
    },
  };
}
