import { useCampaigns } from '../../api/hooks';
import { useScope } from '../../app/scope';
import { isHome } from '../../ui/home';
import { Empty } from '../../ui/Panel';

/** A part of the page that is about one campaign: which. */
export function ChooseCampaign({ title, says }: { title: string; says: string }) {
  const campaigns = useCampaigns();
  const { setScope } = useScope();
  return (
    <Empty title={title}>
      <p>{says}</p>
      <ul className="mt-3 max-h-[50vh] overflow-auto text-left">
        {campaigns.data?.map((campaign, at) => (
          <li key={campaign.id} className="border-b border-line-soft">
            <button
              type="button"
              {...(at === 0 ? isHome : {})}
              className="w-full px-2 py-1 text-left font-semibold hover:underline"
              onClick={() => setScope({ campaignId: campaign.id, adGroupId: null })}
            >
              {campaign.name}
            </button>
          </li>
        ))}
      </ul>
    </Empty>
  );
}
