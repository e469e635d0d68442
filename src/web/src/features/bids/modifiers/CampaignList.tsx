import { useAccount } from '../../../api/account';
import { useScope } from '../../../app/scope';
import { count, money, whole } from '../../../ui/format';
import { isHome } from '../../../ui/home';
import { Empty } from '../../../ui/Panel';
import { useSegmentedCampaigns } from '../useBids';

/** All campaigns, the dearest first, with how many modifiers there are to propose. */
export function CampaignList({ weeks }: { weeks: number }) {
  const account = useAccount();
  const { setScope } = useScope();
  const list = useSegmentedCampaigns(weeks, true);
  if (list.isError)
    return (
      <p role="alert" className="p-4 text-brick">
        {list.error.message}
      </p>
    );
  if (!list.data) return null;
  if (list.data.campaigns.length === 0)
    return (
      <Empty title="No campaigns yet">
        What devices, hours and kinds of site brought stands here, campaign by campaign, with the modifiers
        that follow.
      </Empty>
    );
  return (
    <div className="min-h-0 flex-1 overflow-auto bg-sheet">
      <table className="w-full border-collapse">
        <thead className="sticky top-0 bg-sheet">
          <tr className="border-b border-line-strong text-left text-[12px] text-ink-3">
            <th scope="col" className="px-3 py-1.5 font-semibold">
              Campaign
            </th>
            <th scope="col" className="px-2 text-right font-semibold">
              Clicks
            </th>
            <th scope="col" className="px-2 text-right font-semibold">
              Cost
            </th>
            <th scope="col" className="px-2 text-right font-semibold">
              Conv.
            </th>
            <th scope="col" className="px-2 text-right font-semibold">
              Cost / conv.
            </th>
            <th scope="col" className="px-3 font-semibold">
              Modifiers
            </th>
            <th scope="col" className="px-3 font-semibold">
              Proposed
            </th>
          </tr>
        </thead>
        <tbody>
          {list.data.campaigns.map((campaign, at) => (
            <tr key={campaign.id} className="border-b border-line-soft">
              <th scope="row" className="text-left">
                <button
                  type="button"
                  {...(at === 0 ? isHome : {})}
                  className="w-full px-3 py-1 text-left font-semibold hover:underline"
                  onClick={() => setScope({ campaignId: campaign.id, adGroupId: null })}
                >
                  {campaign.isPaused ? '○ ' : ''}
                  {campaign.name}
                </button>
              </th>
              <td className="px-2 text-right">{whole(campaign.figures.clicks)}</td>
              <td className="px-2 text-right">{money(campaign.figures.cost, account)}</td>
              <td className="px-2 text-right">{count(campaign.figures.conversions)}</td>
              <td className="px-2 text-right">{money(campaign.figures.costPerConversion, account)}</td>
              <td className="px-3 text-ink-2">{campaign.modifiers || '—'}</td>
              <td className="px-3">
                {campaign.sure > 0 ? (
                  <strong>{campaign.sure === 1 ? '1 segment' : `${campaign.sure} segments`}</strong>
                ) : (
                  <span className="text-ink-3">nothing sure</span>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {list.data.more && (
        <p className="px-3 py-2 text-ink-3">
          There are more campaigns than are listed: choose one at the top.
        </p>
      )}
    </div>
  );
}
