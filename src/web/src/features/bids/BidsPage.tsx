import { useSearchParams } from 'react-router';
import { useCampaigns } from '../../api/hooks';
import { useScope } from '../../app/scope';
import { goHome } from '../../ui/home';
import { PageHead } from '../../ui/Panel';
import { Segments } from '../../ui/Segments';
import { EstimatesPart } from './estimates/EstimatesPart';
import { ModifiersPart } from './modifiers/ModifiersPart';
import { OwnBidsPart } from './own/OwnBidsPart';
import { StrategyPart } from './strategy/StrategyPart';

const parts = [
  { value: 'own', label: 'Base and own bids' },
  { value: 'modifiers', label: 'Modifiers' },
  { value: 'strategy', label: 'Strategy' },
  { value: 'estimates', label: 'Estimates' },
] as const;

type Part = (typeof parts)[number]['value'];

/** What is bid: by people keyword by keyword, by modifiers, or by a strategy; and what other bids would bring. */
export function BidsPage() {
  const { campaignId, adGroupId } = useScope();
  const [parameters, setParameters] = useSearchParams();
  const campaigns = useCampaigns();
  const asked = parameters.get('part');
  const part: Part = parts.find((each) => each.value === asked)?.value ?? 'modifiers';
  const name = campaigns.data?.find((campaign) => campaign.id === campaignId)?.name;
  const show = (next: Part) =>
    setParameters((current) => {
      const set = new URLSearchParams(current);
      set.set('part', next);
      return set;
    });
  return (
    <div className="flex h-full min-h-0 flex-col">
      <PageHead title="Bids" note={name ?? 'campaign by campaign'}>
        <Segments label="Part of the page" value={part} segments={parts} onChange={show} />
      </PageHead>
      {part === 'own' ? (
        <OwnBidsPart key={`${campaignId} ${adGroupId}`} campaignId={campaignId} adGroupId={adGroupId} />
      ) : part === 'modifiers' ? (
        <ModifiersPart campaignId={campaignId} />
      ) : part === 'strategy' ? (
        <StrategyPart campaignId={campaignId} onChosen={goHome} />
      ) : (
        <EstimatesPart key={`${campaignId} ${adGroupId}`} campaignId={campaignId} adGroupId={adGroupId} />
      )}
    </div>
  );
}
