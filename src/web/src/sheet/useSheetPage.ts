import { useCallback, useDeferredValue, useMemo, useState } from 'react';
import { answer, api, type ApiProblem, type Command, type Schemas, type SheetRow } from '../api/client';
import { useAccount } from '../api/account';
import { useVariant } from '../api/variant';
import type { SheetProps } from './Sheet';
import type { Open } from './open';
import { noSelection, selectAll, selectRows, type Selection } from './selection';
import type { SheetView } from './sheetQuery';
import { useColumns, type Column } from './views/columns';
import { plainLook, queryOf, type Look } from './views/look';
import { useLook } from './views/useLook';
import { useWidths } from './views/widths';

/** Commands whose new rows are selected afterwards, so that the next change hits just them. */
const makesNew: ReadonlySet<Command['type']> = new Set([
  'bringBack',
  'copy',
  'combineWords',
  'addMatchTypes',
  'splitByMatchType',
  'crossNegatives',
]);

/** Most rows of a step that are selected one by one; of more, the step itself is. */
const mostMarked = 500;

interface Place {
  campaignId: number | null;
  adGroupId: number | null;
  listId?: number | null;
  stepId?: number | null;
}

const noFolds = { campaigns: [] as number[], adGroups: [] as number[], besides: [] as number[] };

/** What a page with a sheet holds: how it is looked at, what is selected, what is open above it. */
export function useSheetPage(
  view: SheetView,
  { campaignId, adGroupId, listId = null, stepId = null }: Place,
  usual: Partial<Record<SheetView, readonly string[]>> = {},
) {
  const account = useAccount();
  const variant = useVariant();
  const [look, setLook] = useLook(view);
  const [widths, onWidth] = useWidths();
  const shown = useDeferredValue(look);
  const [folds, setFolds] = useState(noFolds);
  const [selection, setSelection] = useState<Selection>(noSelection);
  const [open, setOpen] = useState<Open | null>(null);
  const [counted, setCounted] = useState<{ total: number; counts?: Schemas['KindCount'][] }>({ total: 0 });
  const { keys, columns } = useColumns(view, look.columns[view] ?? usual[view], widths);
  const query = useMemo(
    () =>
      queryOf(shown, view, {
        campaignId: listId === null ? campaignId : null,
        adGroupId: listId === null ? adGroupId : null,
        listId,
        stepId,
        variant,
        foldedCampaigns: folds.campaigns,
        foldedAdGroups: folds.adGroups,
        foldedBesides: folds.besides,
      }),
    [shown, view, campaignId, adGroupId, listId, stepId, variant, folds],
  );

  const onLook = (next: Look, inPlace = false) => {
    setSelection(noSelection);
    setLook(next, {}, inPlace);
  };
  // A figure is sorted with the largest first, a name from A on; a third time the order is as usual.
  const onSort = useCallback(
    ({ sort: by, numeric = false }: Column) => {
      if (!by) return;
      setLook((now) => ({
        ...now,
        sort:
          now.sort?.by !== by
            ? { by, descending: numeric }
            : now.sort.descending === numeric
              ? { by, descending: !numeric }
              : null,
      }));
    },
    [setLook],
  );
  const onFold = useCallback((row: SheetRow) => {
    const toggled = (ids: number[], id: number) =>
      ids.includes(id) ? ids.filter((each) => each !== id) : [...ids, id];
    setFolds((now) =>
      row.isHeading
        ? { ...now, besides: toggled(now.besides, -row.id) }
        : row.kind === 'campaign'
          ? { ...now, campaigns: toggled(now.campaigns, row.id) }
          : { ...now, adGroups: toggled(now.adGroups, row.id) },
    );
  }, []);
  const onCounts = useCallback(
    (total: number, counts: Schemas['KindCount'][] | undefined) => setCounted({ total, counts }),
    [],
  );

  /** Selects what a step made or changed, wherever it stands; what the sheet shows stays as it is. */
  const selectStep = async (step: number, items: number) => {
    const where = queryOf({ ...plainLook, figureDays: look.figureDays }, view, {
      campaignId: null,
      adGroupId: null,
      stepId: step,
    });
    if (items > mostMarked) {
      setSelection(selectAll(where, items));
      return;
    }
    const { rows } = await answer(
      api.POST('/api/accounts/{accountId}/sheet', {
        params: { path: { accountId: account.id } },
        body: { ...where, limit: mostMarked },
      }),
    );
    setSelection(
      selectRows(
        rows.filter((row) => row.version === step),
        true,
      ),
    );
  };
  const onDone = (result: Schemas['CommandAnswer'], command: Command) => {
    setOpen(null);
    if (command.type === 'remove') setSelection(noSelection);
    else if (result.stepId && (selection.all || makesNew.has(command.type)))
      void selectStep(result.stepId, result.items);
  };
  const preview = (command: Command) => setOpen({ what: 'preview', command });
  const onOpenItem = (row: SheetRow) => setOpen({ what: 'item', row });
  const onConflict = (problem: ApiProblem, command: Command) =>
    setOpen({ what: 'conflict', problem, command });
  const onRemove = () =>
    preview({
      type: 'remove',
      items: [...selection.rows.values()].map(({ kind, id }) => ({ kind, id })),
      where: selection.all?.where,
    });
  const sheet: Omit<SheetProps, 'children' | 'focus' | 'focusField'> = {
    query,
    columns,
    onSort,
    onWidth,
    onFold,
    selection,
    onSelect: setSelection,
    onPreview: preview,
    onRemove,
    onOpenItem,
    onCounts,
    onConflict,
  };
  return {
    look,
    setLook,
    onLook,
    keys,
    query,
    counted,
    selection,
    setSelection,
    selectStep,
    open,
    setOpen,
    onDone,
    preview,
    onRemove,
    /** What the sheet itself needs. */
    sheet,
    /** What the panel of the selection needs. */
    panel: {
      selection,
      onPreview: preview,
      onOpenItem,
      onConflict,
      onBulk: (edit: Extract<Open, { what: 'bulk' }>['edit']) => setOpen({ what: 'bulk', edit }),
    },
  };
}
