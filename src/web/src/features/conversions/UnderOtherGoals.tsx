import { useAccount } from '../../api/account';
import { useCommand } from '../../api/hooks';
import { Button } from '../../ui/Button';
import { count, money } from '../../ui/format';
import { Panel } from '../../ui/Panel';
import { useGoals, type CampaignGoals } from './useConversions';

/** Goals that a person thinks of giving a campaign. */
export interface Wish {
  campaignId: number;
  /** The campaign as it was when the first goal was ticked: what a colleague changes meanwhile is told, not overwritten. */
  version: number;
  actionIds: readonly number[];
}

/** Where the keyboard goes from the table of goals. */
export const useGoalsId = 'use-goals';

/** The same days, read anew. */
export function UnderOtherGoals({
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
  const isReady = goals.data?.isSame === false && wish.actionIds.length > 0;
  const use = (actionIds: readonly number[] | null) =>
    run.mutate(
      {
        type: 'setGoals',
        campaignIds: [campaign.id],
        actionIds: actionIds === null ? null : [...actionIds],
        seen: [{ kind: 'campaign', id: campaign.id, version: wish.version }],
      },
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
            {goals.data.earlier && ` ${goals.data.earlier}`}
          </p>
        </div>
      )}
      <div className="mt-2 flex flex-wrap gap-2">
        <Button
          id={useGoalsId}
          tone="ember"
          disabled={!isReady}
          onClick={() => !run.isPending && use(wish.actionIds)}
        >
          Use these goals
        </Button>
        {campaign.hasOwn && <Button onClick={() => !run.isPending && use(null)}>Goals of the account</Button>}
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
