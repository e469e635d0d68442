import clsx from 'clsx';
import { useState } from 'react';
import { useAccount } from '../../api/account';
import { useCommand } from '../../api/hooks';
import { Button } from '../../ui/Button';
import { count, money } from '../../ui/format';
import { WeightMark } from '../../ui/Marks';
import { Panel } from '../../ui/Panel';
import { Tick } from '../../ui/Tick';
import { useGoals, type CampaignGoals, type ConversionAction } from './useConversions';

interface Props {
  actions: readonly ConversionAction[];
  campaigns: readonly CampaignGoals[];
  /** There are more campaigns than are listed. */
  more: boolean;
  /** The campaign that the scope trail names. */
  first: number | null;
}

interface Wish {
  campaignId: number;
  actionIds: readonly number[];
}

/** Which actions count in which campaign; a tick is read against the past before it holds. */
export function GoalsPanel({ actions, campaigns, more, first }: Props) {
  const [wish, setWish] = useState<Wish | null>(null);
  const shown = first === null ? campaigns : campaigns.filter((campaign) => campaign.id === first);
  const goalsOf = (campaign: CampaignGoals) =>
    wish?.campaignId === campaign.id ? wish.actionIds : campaign.actionIds;
  const toggle = (campaign: CampaignGoals, id: number) => {
    const goals = goalsOf(campaign);
    setWish({
      campaignId: campaign.id,
      actionIds: goals.includes(id) ? goals.filter((each) => each !== id) : [...goals, id],
    });
  };
  const current = campaigns.find((campaign) => campaign.id === wish?.campaignId);
  return (
    <>
      <section aria-label="Goals of each campaign">
        <h2 className="mb-1.5 text-[14px]">Goals of each campaign</h2>
        <div className="overflow-x-auto rounded-lg border border-line bg-sheet px-2 pb-1">
          <table className="w-full border-collapse">
            <thead>
              <tr className="border-b border-line-strong align-bottom text-[12px] text-ink-3">
                <th scope="col" className="py-1.5 text-left font-semibold">
                  Campaign
                </th>
                {actions.map((action) => (
                  <th key={action.id} scope="col" className="h-[104px] w-[26px] p-0 font-semibold">
                    <span
                      className={clsx(
                        'inline-block max-h-[100px] rotate-180 truncate py-1 [writing-mode:vertical-rl]',
                        action.isPaused && 'line-through',
                      )}
                      title={action.name}
                    >
                      {action.name}
                    </span>
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {shown.map((campaign) => (
                <tr
                  key={campaign.id}
                  className={clsx(
                    'h-[27px] border-b border-line-soft',
                    campaign === current && 'bg-plum-wash',
                  )}
                >
                  <th
                    scope="row"
                    className="max-w-[130px] truncate text-left font-normal"
                    title={`${campaign.name}: ${campaign.hasOwn ? 'goals of its own' : 'the goals of the account'}`}
                  >
                    {campaign.weight && <WeightMark weight={campaign.weight} />}{' '}
                    <span
                      className={clsx(campaign.hasOwn && 'font-semibold', campaign.isPaused && 'text-ink-3')}
                    >
                      {campaign.name}
                    </span>
                  </th>
                  {actions.map((action) => (
                    <td key={action.id} className="text-center leading-none">
                      <Tick
                        label={`${action.name} counts in ${campaign.name}`}
                        checked={goalsOf(campaign).includes(action.id)}
                        onChange={() => toggle(campaign, action.id)}
                      />
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
        <p className="mt-1 text-[12px] text-ink-3">
          Bold: goals of its own. The others go by the account.
          {more && ' There are more campaigns: choose one at the top, or set goals in Structure.'}
        </p>
      </section>
      {current && wish && <UnderOtherGoals campaign={current} wish={wish} onDone={() => setWish(null)} />}
    </>
  );
}

/** The same days, read anew. */
function UnderOtherGoals({
  campaign,
  wish,
  onDone,
}: {
  campaign: CampaignGoals;
  wish: Wish;
  onDone: () => void;
}) {
  const account = useAccount();
  const goals = useGoals(wish.campaignId, wish.actionIds);
  const run = useCommand();
  const use = (actionIds: readonly number[] | null) =>
    run.mutate(
      { type: 'setGoals', campaignIds: [campaign.id], actionIds: actionIds === null ? null : [...actionIds] },
      { onSuccess: onDone },
    );
  return (
    <Panel title={`${campaign.name} under other goals`}>
      {goals.isError && (
        <p role="alert" className="text-brick">
          {goals.error.message}
        </p>
      )}
      {goals.data && (
        <div aria-live="polite">
          <p className="text-ink-3">the same {goals.data.days} days, read anew</p>
          <table className="mt-1 w-full">
            <thead>
              <tr className="text-[12px] text-ink-3">
                <td />
                <th scope="col" className="text-right font-semibold" title={goals.data.nowNames}>
                  now
                </th>
                <th scope="col" className="text-right font-semibold" title={goals.data.thenNames}>
                  then
                </th>
              </tr>
            </thead>
            <tbody>
              <Line
                name="Conversions"
                now={count(goals.data.now.conversions)}
                then={count(goals.data.then.conversions)}
              />
              <Line
                name="Cost per conversion"
                now={money(goals.data.now.costPerConversion, account)}
                then={money(goals.data.then.costPerConversion, account)}
              />
              <Line
                name="Value"
                now={money(goals.data.now.value, account)}
                then={money(goals.data.then.value, account)}
              />
              {(goals.data.now.bids ?? goals.data.then.bids) && (
                <Line
                  name="Bids would have been"
                  now={goals.data.now.bids ?? '—'}
                  then={goals.data.then.bids ?? '—'}
                />
              )}
            </tbody>
          </table>
          <p className="mt-1 text-ink-2">
            Now {goals.data.nowNames}; then {goals.data.thenNames}.
          </p>
        </div>
      )}
      <div className="mt-2 flex flex-wrap gap-2">
        <Button
          tone="ember"
          disabled={run.isPending || goals.data?.isSame !== false || wish.actionIds.length === 0}
          onClick={() => use(wish.actionIds)}
        >
          Use these goals
        </Button>
        {campaign.hasOwn && (
          <Button disabled={run.isPending} onClick={() => use(null)}>
            Goals of the account
          </Button>
        )}
        <Button tone="quiet" onClick={onDone}>
          Leave
        </Button>
      </div>
    </Panel>
  );
}

function Line({ name, now, then }: { name: string; now: string; then: string }) {
  return (
    <tr>
      <th scope="row" className="py-0.5 text-left font-normal">
        {name}
      </th>
      <td className="pl-2 text-right">{now}</td>
      <td className="pl-2 text-right font-semibold">{then}</td>
    </tr>
  );
}
