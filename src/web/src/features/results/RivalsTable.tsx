import { useQuery } from '@tanstack/react-query';
import { answer, api } from '../../api/client';
import { useAccount } from '../../api/account';
import { fullDay, percent } from '../../ui/format';
import type { ComparedDays } from './period';

interface Props {
  asked: ComparedDays;
  campaignId: number | null;
  adGroupId: number | null;
}

/** Who else showed with one's ads, and how often above them. */
export function RivalsTable({ asked: days, campaignId, adGroupId }: Props) {
  const account = useAccount();
  const asked = {
    ...days,
    campaignId: campaignId ?? undefined,
    adGroupId: adGroupId ?? undefined,
  };
  const rivals = useQuery({
    queryKey: [account.id, 'results', 'rivals', asked],
    placeholderData: (previous) => previous,
    queryFn: () =>
      answer(
        api.GET('/api/accounts/{accountId}/results/rivals', {
          params: { path: { accountId: account.id }, query: asked },
        }),
      ),
  });
  if (rivals.isError)
    return (
      <p role="alert" className="text-brick">
        {rivals.error.message}
      </p>
    );
  if (!rivals.data) return <p className="text-ink-3">Reading…</p>;
  if (rivals.data.length === 0)
    return (
      <p className="rounded-lg border border-line bg-sheet p-6 text-center text-ink-2">
        Nobody showed with these ads in these days.
      </p>
    );
  const most = Math.max(...rivals.data.map((rival) => rival.coShowShare));
  return (
    <div className="rounded-lg border border-line bg-sheet">
      <table className="w-full border-collapse">
        <thead>
          <tr className="border-b border-line-strong text-left text-[11.5px] text-ink-3">
            <th scope="col" className="px-2 py-[5px] font-semibold">
              Rival
            </th>
            <th scope="col" className="px-2 text-right font-semibold">
              Shows with us
            </th>
            <th scope="col" className="w-[30%] px-2" aria-label="Share of our impressions" />
            <th scope="col" className="px-2 text-right font-semibold">
              before
            </th>
            <th scope="col" className="px-2 text-right font-semibold">
              Above us
            </th>
            <th scope="col" className="px-2 text-right font-semibold">
              before
            </th>
            <th scope="col" className="px-2 text-right font-semibold">
              First seen
            </th>
          </tr>
        </thead>
        <tbody>
          {rivals.data.map((rival) => (
            <tr key={rival.rival} className="border-b border-line-soft last:border-0">
              <th scope="row" className="px-2 py-1 text-left font-semibold">
                {rival.rival}
              </th>
              <td className="px-2 text-right">{percent(rival.coShowShare, 1)}</td>
              <td className="px-2">
                <div className="flex h-[9px]" style={{ width: `${(100 * rival.coShowShare) / most}%` }}>
                  <div
                    className="rounded-l-[2px] bg-plum"
                    style={{ width: `${100 * rival.aboveUsShare}%` }}
                  />
                  <div className="flex-1 rounded-r-[2px] bg-plum-wash" />
                </div>
              </td>
              <td className="px-2 text-right text-ink-3">{percent(rival.coShowShareBefore, 1)}</td>
              <td className="px-2 text-right">{percent(rival.aboveUsShare, 1)}</td>
              <td className="px-2 text-right text-ink-3">{percent(rival.aboveUsShareBefore, 1)}</td>
              <td className="px-2 text-right whitespace-nowrap">{fullDay(rival.since)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="border-t border-line-soft p-2 text-[12.5px] text-ink-3">
        Shares of our own impressions; the dark part of a bar is above us.
      </p>
    </div>
  );
}
