import { useState } from 'react';
import { Choice } from '../../../ui/Choice';
import { useSettled } from '../../../ui/useSettled';
import { ChooseCampaign } from '../ChooseCampaign';
import { useStrategy, type Strategy, type StrategyWish } from '../useBids';
import { Replay } from './Replay';
import { StrategyChoice } from './StrategyChoice';
import { StrategySide } from './StrategySide';

const monthChoices = [1, 2, 3, 6, 12].map((months) => ({
  value: String(months),
  label: months === 1 ? 'Last month' : `Last ${months} months`,
}));
const replayChoices = [4, 8, 13].map((weeks) => ({ value: String(weeks), label: `Last ${weeks} weeks` }));

const wishOf = (known: Strategy): StrategyWish => ({
  strategy: known.chosen,
  targetCpa: known.values.targetCpa ?? '',
  targetRoas: known.values.targetRoas ?? '',
  lowestBid: known.values.lowestBid ?? '',
  highestBid: known.values.highestBid ?? '',
});

/** Who sets the bids of a campaign: what speaks for another strategy, what it would have done, and what the one that runs does. */
export function StrategyPart({ campaignId, onChosen }: { campaignId: number | null; onChosen: () => void }) {
  return campaignId === null ? (
    <ChooseCampaign
      title="Whose bids?"
      says="Who sets the bids is said campaign by campaign: what speaks for a strategy, and what it would have done."
    />
  ) : (
    <OfCampaign key={campaignId} campaignId={campaignId} onChosen={onChosen} />
  );
}

function OfCampaign({ campaignId, onChosen }: { campaignId: number; onChosen: () => void }) {
  const [wish, setWish] = useState<StrategyWish | null>(null);
  // What stood there when a person began to change it: a colleague's change since is told, not overwritten.
  const [begun, setBegun] = useState<Strategy | null>(null);
  // Enter in a setting leads to the step; what is typed has to be looked at first.
  const [leads, setLeads] = useState(false);
  const [months, setMonths] = useState(3);
  const [weeks, setWeeks] = useState(8);
  const asked = useSettled(wish);
  const strategy = useStrategy(campaignId, asked, months, weeks);
  if (strategy.isError)
    return (
      <p role="alert" className="p-4 text-brick">
        {strategy.error.message}
      </p>
    );
  const known = strategy.data;
  if (!known) return null;
  const shown = wish ?? wishOf(known);
  const change = (next: StrategyWish) => {
    if (wish === null) setBegun(known);
    setLeads(false);
    setWish(next);
  };
  return (
    <div className="grid min-h-0 flex-1 max-[1099px]:block max-[1099px]:overflow-auto min-[1100px]:grid-cols-[minmax(0,1fr)_340px]">
      <div className="min-h-0 overflow-auto bg-sheet">
        <StrategyChoice known={known} wish={shown} onWish={change} onEnter={() => setLeads(true)} />
        <div className="flex flex-wrap items-center gap-2 border-y border-line-soft bg-paper px-3 py-1">
          <h2 className="text-[14px]">What past weeks would have brought</h2>
          <span className="ml-auto">
            <Choice
              label="Weeks to play again"
              value={String(weeks)}
              options={replayChoices}
              onChange={(next) => setWeeks(Number(next))}
            />
          </span>
        </div>
        <Replay known={known} />
      </div>
      <StrategySide
        campaignId={campaignId}
        known={known}
        begun={wish === null ? known : (begun ?? known)}
        wish={shown}
        leads={leads}
        isSettled={!strategy.isPlaceholderData && asked === wish}
        months={
          <Choice
            label="Months of a first target"
            value={String(months)}
            options={monthChoices}
            onChange={(next) => setMonths(Number(next))}
          />
        }
        onTarget={(target) =>
          change({
            ...shown,
            [shown.strategy === 'targetRoas' ? 'targetRoas' : 'targetCpa']: target,
          })
        }
        onSet={() => {
          setWish(null);
          setBegun(null);
          onChosen();
        }}
      />
    </div>
  );
}
