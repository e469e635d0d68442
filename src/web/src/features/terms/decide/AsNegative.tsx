import clsx from 'clsx';
import { useState, type ReactNode } from 'react';
import { useAccount } from '../../../api/account';
import { useCampaigns } from '../../../api/hooks';
import { usePreview } from '../../../api/usePreview';
import { NegativeForms } from '../../../sheet/editing/NegativeForms';
import { useNegativeLists } from '../../../sheet/useNegativeLists';
import { Choice } from '../../../ui/Choice';
import { TextArea } from '../../../ui/Field';
import { count, money, plural, whole } from '../../../ui/format';
import { Panel } from '../../../ui/Panel';
import { useForecast, type Outlook, type Places, type TermsProposal } from '../useTerms';
import { DecideForm } from './DecideForm';
import { useDecide } from './useDecide';

interface Props {
  terms: readonly string[];
  proposal: TermsProposal;
  weeks: number;
  /** What else can settle it. */
  children: ReactNode;
}

const typingRests = 300;

/** Negatives that keep terms away, what they would have done, and where they stand. */
export function AsNegative({ terms, proposal, weeks, children }: Props) {
  const [lines, setLines] = useState(proposal.negatives.map((negative) => negative.line).join('\n'));
  const places = usePlaces(proposal);
  const [where, setWhere] = useState(places[0]?.value ?? '');
  const place = places.find((each) => each.value === where) ?? places[0];
  const { decide, problem, isPending } = useDecide();
  const forecast = useForecast();
  const outlook = usePreview(
    lines.trim() && place ? `${weeks} ${place.value}\n${lines}` : null,
    (signal) => forecast(weeks, lines, 'phrase', place?.places ?? {}, signal),
    typingRests,
  );
  const written = lines.split('\n').filter((line) => line.trim()).length;
  const submit = () => {
    if (!place || written === 0) return;
    decide({
      decision: 'negative',
      terms: [...terms],
      negatives: lines,
      match: 'phrase',
      places: place.places,
    });
  };
  return (
    <DecideForm
      does={`Add ${plural(written, 'negative')}`}
      can={!isPending && written > 0 && place !== undefined}
      problem={problem ?? outlook.error?.message}
      onSubmit={submit}
    >
      <Panel>
        <TextArea
          label="What never to answer, one in each line"
          hint="Bare words and “words” as a phrase, [words] exactly."
          rows={Math.min(8, Math.max(2, written + 1))}
          value={lines}
          onChange={(event) => setLines(event.target.value)}
          onKeyDown={(event) => {
            if (event.key === 'Enter' && event.ctrlKey) submit();
          }}
        />
        <p className="mt-1.5 mb-0.5 text-[12px] font-semibold text-ink-2">Where</p>
        <Choice
          label="Where the negatives stand"
          className="w-full"
          value={place?.value ?? ''}
          options={places}
          onChange={setWhere}
        />
        {proposal.negatives.length > 0 && (
          <details className="mt-1.5 text-[12.5px] text-ink-3">
            <summary className="min-h-[24px] cursor-pointer">Why these</summary>
            <ul className="space-y-1">
              {proposal.negatives.map((negative) => (
                <li key={negative.line}>
                  <strong>{negative.line}</strong>: {negative.why}
                </li>
              ))}
            </ul>
          </details>
        )}
      </Panel>
      {outlook.data && <OutlookPanel outlook={outlook.data} weeks={weeks} />}
      {children}
      <NegativeForms lines={lines} onLines={setLines} />
    </DecideForm>
  );
}

/** Where negatives can stand, the widest that is shared first. */
function usePlaces(proposal: TermsProposal): { value: string; label: string; places: Places }[] {
  const lists = useNegativeLists().data?.rows ?? [];
  const campaigns = useCampaigns().data ?? [];
  return [
    {
      value: 'campaigns',
      label: `${plural(proposal.campaignIds.length, 'campaign')} that they came through`,
      places: { campaignIds: proposal.campaignIds },
    },
    {
      value: 'groups',
      label: `${plural(proposal.adGroupIds.length, 'ad group')} that they came through`,
      places: { adGroupIds: proposal.adGroupIds },
    },
    { value: 'all', label: 'all campaigns', places: { campaignIds: campaigns.map((each) => each.id) } },
    ...lists
      .filter((list) => list.change !== 'removed')
      .map((list) => ({
        value: `list ${list.id}`,
        label: `list “${list.name}”`,
        places: { listIds: [list.id] },
      })),
  ];
}

function OutlookPanel({ outlook, weeks }: { outlook: Outlook; weeks: number }) {
  const account = useAccount();
  const blocks = outlook.keywords > 0;
  return (
    <Panel title={`The last ${weeks} weeks with it`}>
      <dl className="grid grid-cols-[1fr_auto] gap-y-0.5" aria-live="polite">
        <dt title={outlook.examples.join('\n')}>Terms it would have stopped</dt>
        <dd className="text-right font-semibold">{whole(outlook.terms)}</dd>
        <dt>Saved</dt>
        <dd className="text-right font-semibold">{money(outlook.figures.cost, account)}</dd>
        <dt>Conversions lost</dt>
        <dd className={clsx('text-right font-semibold', outlook.figures.conversions > 0 && 'text-ochre')}>
          {outlook.figures.conversions > 0 && <span aria-hidden>◆ </span>}
          {count(outlook.figures.conversions)}
        </dd>
        <dt>Own keywords it blocks</dt>
        <dd className="text-right font-semibold">{blocks ? whole(outlook.keywords) : 'none'}</dd>
      </dl>
      {blocks && (
        <p className="mt-1 text-ochre">
          ◆ {outlook.keywordExamples.join(', ')}
          {outlook.keywords > outlook.keywordExamples.length ? ' …' : ''} would never show again.
        </p>
      )}
    </Panel>
  );
}
