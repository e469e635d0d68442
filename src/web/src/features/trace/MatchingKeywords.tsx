import clsx from 'clsx';
import type { Schemas } from '../../api/client';
import { useAccount } from '../../api/account';
import { useGo } from '../../app/scope';
import { money, nothing } from '../../ui/format';
import { MatchChip } from '../../ui/Marks';
import { Mend } from './Mend';

/** The keywords that match, the one that answers first, each with how it was reached and what keeps it away. */
export function MatchingKeywords({ keywords }: { keywords: readonly Schemas['TracedKeyword'][] }) {
  const account = useAccount();
  const go = useGo();
  return (
    <table className="mt-1 w-full text-ink">
      <thead>
        <tr className="border-b border-line text-left text-[12px] text-ink-2">
          <th className="py-1 pr-3 pl-2 font-semibold">Keyword</th>
          <th className="pr-3 font-semibold">Match</th>
          <th className="pr-3 font-semibold">Where</th>
          <th className="pr-3 text-right font-semibold">Bid × quality</th>
          <th className="pr-2 font-semibold">Why, or why not</th>
        </tr>
      </thead>
      <tbody>
        {keywords.map((keyword) => (
          <tr
            key={keyword.id}
            className={clsx('border-b border-line align-top', keyword.answers && 'bg-plum-wash')}
          >
            <td className="py-1 pr-3 pl-2">
              <button
                type="button"
                className={clsx(
                  'text-left underline decoration-line-strong underline-offset-2 hover:decoration-plum',
                  keyword.answers && 'font-semibold',
                  keyword.hindrance && 'text-ink-3',
                )}
                onClick={() =>
                  go('plan/structure', {
                    campaign: keyword.campaignId,
                    adGroup: keyword.adGroupId,
                    focus: `keyword:${keyword.id}`,
                  })
                }
              >
                {keyword.text}
              </button>
            </td>
            <td className="py-1 pr-3">{keyword.match && <MatchChip match={keyword.match} />}</td>
            <td className="py-1 pr-3 text-ink-2" title={keyword.campaign}>
              {keyword.adGroup}
            </td>
            <td className="py-1 pr-3 text-right whitespace-nowrap">
              {keyword.bid === null ? nothing : money(keyword.bid, account)}
              {keyword.quality !== null && ` × ${keyword.quality}`}
            </td>
            <td className="py-1 pr-2 text-ink-2">
              {keyword.why}
              {keyword.hindrance && (
                <div>
                  {keyword.hindrance.kind === 'negative' ? (
                    'kept away by a negative'
                  ) : (
                    <Mend hindrance={keyword.hindrance} />
                  )}
                </div>
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
