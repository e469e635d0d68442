import { Segments } from '../../../ui/Segments';
import { plural } from '../../../ui/format';
import { useProposal, type SearchTerm } from '../useTerms';
import { AsKeyword } from './AsKeyword';
import { AsNegative } from './AsNegative';
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
  weeks: number;
  decision: Decision;
  onDecision: (decision: Decision) => void;
  onDecided: () => void;
}

/** What becomes of the chosen terms. */
export function DecideSide({ terms, weeks, decision, onDecision, onDecided }: Props) {
  const texts = terms.map((term) => term.term);
  const proposal = useProposal(texts, weeks);
  const first = terms[0];
  const answering = proposal.data?.terms[0]?.answering ?? [];
  return (
    <aside
      aria-label="What becomes of them"
      className="flex min-h-0 flex-col gap-2.5 border-l border-line bg-paper p-3"
    >
      {!first ? (
        <p className="text-ink-2">Choose terms to say what becomes of them.</p>
      ) : (
        <>
          <h2 className="shrink-0 truncate text-[15px]" title={texts.join('\n')}>
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
            <LeaveThem terms={texts} onDecided={onDecided} />
          ) : !proposal.data || proposal.isPlaceholderData ? (
            <p className="text-ink-3">Looking where they belong …</p>
          ) : decision === 'keyword' ? (
            <AsKeyword proposal={proposal.data} onDecided={onDecided} />
          ) : (
            <AsNegative terms={texts} proposal={proposal.data} weeks={weeks} onDecided={onDecided}>
              {terms.length === 1 && answering.length > 1 && (
                <WhoShouldHaveIt term={first.term} groups={answering} onDecided={onDecided} />
              )}
            </AsNegative>
          )}
        </>
      )}
    </aside>
  );
}
