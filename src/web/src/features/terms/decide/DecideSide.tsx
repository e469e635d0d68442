import { Segments } from '../../../ui/Segments';
import { plural } from '../../../ui/format';
import { goHome } from '../../../ui/home';
import { useSettled } from '../../../ui/useSettled';
import { useProposal, type SearchTerm } from '../useTerms';
import { AsKeyword } from './AsKeyword';
import { AsNegative } from './AsNegative';
import { DecideContext } from './useDecide';
import { LeaveThem } from './LeaveThem';
import { WhoShouldHaveIt } from './WhoShouldHaveIt';

export type Decision = NonNullable<SearchTerm['decision']>;

const decisions = [
  { value: 'keyword', label: 'Keyword' },
  { value: 'negative', label: 'Negative' },
  { value: 'leave', label: 'Leave' },
] as const;

interface Props {
  terms: readonly SearchTerm[];
  /** The newest step when the terms were read. */
  asOf: number;
  weeks: number;
  decision: Decision;
  onDecision: (decision: Decision) => void;
  /** True when a key of the table asked for the step. */
  leads: boolean;
  onLed: () => void;
  onDecided: () => void;
}

/** Whoever goes through the terms by the arrows does not ask about each. */
const goingRests = 150;

const noTerms: readonly string[] = [];

/** What becomes of the chosen terms. */
export function DecideSide({ terms, asOf, weeks, decision, onDecision, leads, onLed, onDecided }: Props) {
  const texts = terms.map((term) => term.term);
  const key = texts.join('\n');
  const settled = useSettled(key, goingRests);
  const proposal = useProposal(settled === key ? texts : noTerms, weeks);
  const first = terms[0];
  const known = settled === key && !proposal.isPlaceholderData ? proposal.data : undefined;
  const term = terms.length === 1 ? known?.terms[0] : undefined;
  return (
    <aside
      aria-label="What becomes of them"
      className="flex min-h-0 flex-col gap-2.5 border-l border-line bg-paper p-3"
      onKeyDown={(event) => {
        // A list that is open above it has the key first.
        if (event.key === 'Escape' && !event.defaultPrevented) goHome();
      }}
    >
      {!first ? (
        <p className="text-ink-2">Choose terms to say what becomes of them.</p>
      ) : (
        <DecideContext value={{ asOf, leads, onLed, onDecided }}>
          <h2 className="shrink-0 truncate text-[15px]" title={key}>
            {terms.length === 1 ? first.term : plural(terms.length, 'term')}
          </h2>
          <Segments
            label="What becomes of them"
            value={decision}
            segments={decisions}
            onChange={onDecision}
          />
          {proposal.isError && (
            <p role="alert" className="text-brick">
              {proposal.error.message}
            </p>
          )}
          {decision === 'leave' ? (
            <LeaveThem key={key} terms={texts} />
          ) : !known ? (
            !proposal.isError && <p className="text-ink-3">Looking where they belong …</p>
          ) : decision === 'keyword' ? (
            <AsKeyword key={key} proposal={known} />
          ) : (
            <AsNegative key={key} terms={texts} proposal={known} weeks={weeks}>
              {term && term.answering.length > 1 && <WhoShouldHaveIt term={term} />}
            </AsNegative>
          )}
        </DecideContext>
      )}
    </aside>
  );
}
