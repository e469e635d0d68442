import { useQuery, keepPreviousData } from '@tanstack/react-query';
import { useDeferredValue } from 'react';
import { answer, api, type Schemas } from '../api/client';
import { useAccount } from '../api/account';
import { count, money, percent, plural, whole } from '../ui/format';
import { Tip } from '../ui/Tip';
import { chosenOf, requestOf, sizeOf, type Selection } from './selection';
import type { SheetQuery } from './sheetQuery';

/** Sums under the sheet: of all that the filter lets through, and of the selection. */
export function TotalsBar({ query, selection }: { query: SheetQuery; selection: Selection }) {
  const shown = useDeferredValue(query);
  const chosen = useDeferredValue(selection);
  const many = sizeOf(chosen) > 1;
  const byFilter = chosen.all && chosen.rows.size === 0;
  const all = useTotals({ where: requestOf(shown), items: null }, true);
  const selected = useTotals(
    byFilter
      ? { where: requestOf(chosen.all?.where ?? shown), items: null }
      : { where: requestOf(shown), items: chosenOf({ ...chosen, all: null }).items },
    many && (byFilter || chosen.all === null),
  );
  return (
    <div className="flex flex-wrap gap-x-6 gap-y-0.5 border-t border-line-strong bg-paper px-3 py-1 text-[12.5px]">
      <Sums title="All shown" totals={all.data} />
      {many && <Sums title="Selected" totals={selected.data} strong />}
    </div>
  );
}

function useTotals(body: Schemas['TotalsRequest'], enabled: boolean) {
  const account = useAccount();
  return useQuery({
    queryKey: [account.id, 'totals', body],
    enabled,
    placeholderData: keepPreviousData,
    queryFn: () =>
      answer(
        api.POST('/api/accounts/{accountId}/sheet/totals', {
          params: { path: { accountId: account.id } },
          body,
        }),
      ),
  });
}

function Sums({
  title,
  totals,
  strong,
}: {
  title: string;
  totals?: Schemas['TotalsAnswer'];
  strong?: boolean;
}) {
  const account = useAccount();
  if (!totals) return null;
  const figures = [
    `${whole(totals.impressions)} impressions`,
    `${whole(totals.clicks)} clicks (${percent(totals.clickThroughRate)})`,
    money(totals.cost, account),
    `${count(totals.conversions)} conversions`,
    `${money(totals.costPerConversion, account)} each`,
  ];
  return (
    <Tip text="Each click counts once, also where a keyword and its campaign are both among the rows.">
      <span tabIndex={0} className="rounded-sm whitespace-nowrap text-ink-2">
        <b className={strong ? 'font-semibold text-plum' : 'font-semibold text-ink'}>
          {title}: {plural(totals.items, 'item')}
        </b>
        {' · '}
        {figures.join(' · ')}
      </span>
    </Tip>
  );
}
