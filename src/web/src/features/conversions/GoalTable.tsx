import clsx from 'clsx';
import { useState, type KeyboardEvent } from 'react';
import { WeightMark } from '../../ui/Marks';
import { Tick } from '../../ui/Tick';
import { useGoalsId, type Wish } from './UnderOtherGoals';
import type { CampaignGoals, ConversionAction } from './useConversions';

interface Props {
  actions: readonly ConversionAction[];
  campaigns: readonly CampaignGoals[];
  wish: Wish | null;
  onToggle: (campaign: CampaignGoals, actionId: number) => void;
}

export const goalCellId = (campaignId: number, actionId: number) => `goal-${campaignId}-${actionId}`;

/** Campaigns against actions. Arrows go through the table, Tab goes past it, Enter goes on to what is read anew. */
export function GoalTable({ actions, campaigns, wish, onToggle }: Props) {
  const [at, setAt] = useState({ row: 0, column: 0 });
  const row = Math.min(at.row, campaigns.length - 1);
  const column = Math.min(at.column, actions.length - 1);
  const keys = (event: KeyboardEvent) => {
    if (event.key === 'Enter') {
      event.preventDefault();
      document.getElementById(useGoalsId)?.focus();
      return;
    }
    const step = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1] }[event.key];
    if (!step) return;
    event.preventDefault();
    const campaign = campaigns[row + (step[0] ?? 0)];
    const action = actions[column + (step[1] ?? 0)];
    if (campaign && action) document.getElementById(goalCellId(campaign.id, action.id))?.focus();
  };
  return (
    <div className="overflow-x-auto rounded-lg border border-line bg-sheet px-2 pb-1">
      <table className="w-full border-collapse" onKeyDown={keys}>
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
          {campaigns.map((campaign, y) => {
            const isWished = wish?.campaignId === campaign.id;
            const goals = isWished ? wish.actionIds : campaign.actionIds;
            return (
              <tr
                key={campaign.id}
                className={clsx('h-[27px] border-b border-line-soft', isWished && 'bg-plum-wash')}
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
                {actions.map((action, x) => (
                  <td key={action.id} className="text-center leading-none">
                    <Tick
                      id={goalCellId(campaign.id, action.id)}
                      label={`${action.name} counts in ${campaign.name}`}
                      checked={goals.includes(action.id)}
                      tabIndex={y === row && x === column ? 0 : -1}
                      onFocus={() => setAt({ row: y, column: x })}
                      onChange={() => onToggle(campaign, action.id)}
                    />
                  </td>
                ))}
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}
