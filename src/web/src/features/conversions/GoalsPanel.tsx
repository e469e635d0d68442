import { useState } from 'react';
import { GoalTable, goalCellId } from './GoalTable';
import { UnderOtherGoals, type Wish } from './UnderOtherGoals';
import type { CampaignGoals, ConversionAction } from './useConversions';

interface Props {
  actions: readonly ConversionAction[];
  campaigns: readonly CampaignGoals[];
  /** There are more campaigns than are listed. */
  more: boolean;
  /** The campaign that the scope trail names. */
  first: number | null;
}

/** Which actions count in which campaign; a tick is read against the past before it holds. */
export function GoalsPanel({ actions, campaigns, more, first }: Props) {
  const [wish, setWish] = useState<Wish | null>(null);
  const [last, setLast] = useState<string | null>(null);
  const shown = first === null ? campaigns : campaigns.filter((campaign) => campaign.id === first);
  const toggle = (campaign: CampaignGoals, id: number) => {
    const mine = wish?.campaignId === campaign.id ? wish : null;
    const goals = mine?.actionIds ?? campaign.actionIds;
    setLast(goalCellId(campaign.id, id));
    setWish({
      campaignId: campaign.id,
      version: mine?.version ?? campaign.version,
      actionIds: goals.includes(id) ? goals.filter((each) => each !== id) : [...goals, id],
    });
  };
  const current = campaigns.find((campaign) => campaign.id === wish?.campaignId);
  return (
    <>
      <section aria-label="Goals of each campaign">
        <h2 className="mb-1.5 text-[14px]">Goals of each campaign</h2>
        <GoalTable actions={actions} campaigns={shown} wish={wish} onToggle={toggle} />
        <p className="mt-1 text-[12px] text-ink-3">
          Bold: goals of its own. The others go by the account.
          {more && ' There are more campaigns: choose one at the top, or set goals in Structure.'}
        </p>
      </section>
      {current && wish && (
        <UnderOtherGoals
          campaign={current}
          wish={wish}
          onDone={() => {
            setWish(null);
            // Whoever came from a goal is back there.
            if (last) document.getElementById(last)?.focus();
          }}
        />
      )}
    </>
  );
}
