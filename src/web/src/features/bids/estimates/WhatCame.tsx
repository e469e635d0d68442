import { count, shortDay } from '../../../ui/format';
import type { Estimates } from '../useBids';

/** How estimates turned out: in words, and one by one. */
export function WhatCame({ estimates }: { estimates: Estimates }) {
  return (
    <section className="border-t border-line p-3" aria-label="How estimates turned out">
      <h2 className="text-[14px]">How estimates turned out</h2>
      <p className="mt-1">{estimates.networkErrs}</p>
      <p>{estimates.ownErrs}</p>
      {estimates.compared.length > 0 && (
        <table className="mt-2 border-collapse" aria-label="Estimates and what came">
          <thead>
            <tr className="border-b border-line-strong text-[12px] text-ink-3">
              {['Keyword', 'Asked', 'Clicks, the network', 'Fendrik', 'Came', 'With budget enough'].map(
                (name, at) => (
                  <th
                    key={name}
                    scope="col"
                    className={`px-2 py-1 font-semibold ${at > 1 ? 'text-right' : 'text-left'}`}
                  >
                    {name}
                  </th>
                ),
              )}
            </tr>
          </thead>
          <tbody>
            {estimates.compared.map((each) => (
              <tr key={`${each.keywordId} ${each.askedOn}`} className="border-b border-line-soft">
                <th scope="row" className="px-2 text-left font-semibold">
                  {each.text}
                </th>
                <td className="px-2 text-ink-3">{shortDay(each.askedOn)}</td>
                <td className="px-2 text-right">{count(each.networkClicks)}</td>
                <td className="px-2 text-right">{count(each.ownClicks)}</td>
                <td className="px-2 text-right">{count(each.cameClicks)}</td>
                <td className="px-2 text-right font-semibold">{count(each.fullClicks)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}
