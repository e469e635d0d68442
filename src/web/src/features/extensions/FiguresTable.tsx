import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { useAccount } from '../../api/account';
import { useKinds } from '../../api/kinds';
import { count, money, percent, times, whole } from '../../ui/format';
import { EverywhereDialog } from './EverywhereDialog';

interface Props {
  figures: readonly Schemas['ExtensionFigure'][];
}

/** What each text brought, the cheapest conversions first; each is changed wherever it stands. */
export function FiguresTable({ figures }: Props) {
  const [changing, setChanging] = useState<Schemas['ExtensionFigure'] | null>(null);
  const account = useAccount();
  const kinds = useKinds();
  const heads = ['Impressions', 'Clicks', 'CTR', 'Against usual', 'Clicks on it', 'Conv.', 'Cost / conv.'];
  return (
    <>
      <table className="w-full border-collapse" aria-label="What extensions brought in 28 days">
        <thead className="sticky top-0 bg-sheet">
          <tr className="border-b border-line-strong text-[12px] text-ink-2">
            <th scope="col" className="px-3 py-1.5 text-left font-semibold">
              Extension
            </th>
            <th scope="col" className="px-2 text-left font-semibold">
              Kind
            </th>
            <th scope="col" className="px-2 text-right font-semibold">
              Places
            </th>
            {heads.map((head) => (
              <th key={head} scope="col" className="px-2 text-right font-semibold">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {figures.map((each) => (
            <tr key={`${each.kind} ${each.says}`} className="h-[27px] border-b border-line-soft">
              <th scope="row" className="px-3 text-left font-semibold">
                <button
                  type="button"
                  className="rounded-sm text-left hover:underline"
                  title="Change it wherever it stands"
                  onClick={() => setChanging(each)}
                >
                  {each.says}
                </button>{' '}
                <span className="ml-1 font-normal text-ink-3">{each.length} ch.</span>
              </th>
              <td className="px-2 text-ink-2">{kinds.noun(each.kind)}</td>
              <td className="px-2 text-right">{count(each.places)}</td>
              <td className="px-2 text-right">{whole(each.figures.impressions)}</td>
              <td className="px-2 text-right">{whole(each.figures.clicks)}</td>
              <td className="px-2 text-right">{percent(each.figures.clickThroughRate, 1)}</td>
              <td
                className="px-2 text-right"
                title="Clicks on the ads beside which it showed, against those that their places usually bring"
              >
                {times(each.againstUsual)}
              </td>
              <td className="px-2 text-right">{whole(each.ownClicks)}</td>
              <td className="px-2 text-right">{count(each.figures.conversions)}</td>
              <td className="px-3 text-right font-semibold">
                {money(each.figures.costPerConversion, account)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {changing && <EverywhereDialog figure={changing} onClose={() => setChanging(null)} />}
    </>
  );
}
