import { useState } from 'react';
import type { Level } from '../../api/kinds';
import { useAdGroups, useCampaigns } from '../../api/hooks';
import { useScope } from '../../app/scope';
import { Choice } from '../../ui/Choice';

export interface Place {
  campaignId: number | null;
  adGroupId: number | null;
}

const wholeAccount = 'account';
const wholeCampaign = 'campaign';

/** Where a new item is to stand: by default in the scope, or where the selection is. */
export function usePlace(levels: readonly Level[], start: Place) {
  const scope = useScope();
  const onAccount = levels.includes('account');
  const onCampaign = levels.includes('campaign');
  const inGroup = levels.includes('adGroup');
  const campaigns = useCampaigns();
  const [campaign, setCampaign] = useState<number | null | undefined>(
    start.campaignId ?? scope.campaignId ?? undefined,
  );
  const campaignId = onAccount
    ? (campaign ?? null)
    : onCampaign || inGroup
      ? (campaign ?? campaigns.data?.[0]?.id ?? null)
      : null;
  const adGroups = useAdGroups(inGroup ? campaignId : null);
  const [group, setGroup] = useState<number | null>(start.adGroupId ?? scope.adGroupId);
  const adGroupId = !inGroup
    ? null
    : adGroups.data?.some((each) => each.id === group)
      ? group
      : onCampaign
        ? null
        : (adGroups.data?.[0]?.id ?? null);
  const missing =
    !onAccount && campaignId === null
      ? 'campaign'
      : inGroup && !onCampaign && adGroupId === null
        ? 'ad group'
        : null;
  const choices = (
    <>
      {(onAccount ? onCampaign || inGroup : campaignId !== null) && campaigns.data && (
        <div className="flex flex-wrap gap-2">
          <Choice
            label="Campaign"
            value={campaignId === null ? wholeAccount : String(campaignId)}
            options={[
              ...(onAccount ? [{ value: wholeAccount, label: 'the whole account' }] : []),
              ...campaigns.data.map((each) => ({ value: String(each.id), label: each.name })),
            ]}
            onChange={(id) => setCampaign(id === wholeAccount ? null : Number(id))}
          />
          {inGroup && campaignId !== null && adGroups.data && (onCampaign || adGroupId !== null) && (
            <Choice
              label="Ad group"
              value={adGroupId === null ? wholeCampaign : String(adGroupId)}
              options={[
                ...(onCampaign ? [{ value: wholeCampaign, label: 'the whole campaign' }] : []),
                ...adGroups.data.map((each) => ({ value: String(each.id), label: each.name })),
              ]}
              onChange={(id) => setGroup(id === wholeCampaign ? null : Number(id))}
            />
          )}
        </div>
      )}
      {missing && <p className="text-ochre">There is no {missing} yet. Add one first.</p>}
    </>
  );
  return {
    missing,
    choices,
    /** The place as commands name it. */
    ids: {
      campaignIds:
        campaignId !== null && adGroupId === null && !(onAccount && !onCampaign) ? [campaignId] : [],
      adGroupIds: adGroupId === null ? [] : [adGroupId],
    },
  };
}
