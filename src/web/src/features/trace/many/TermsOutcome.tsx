import type { Schemas } from '../../../api/client';
import { useGo } from '../../../app/scope';
import { Button } from '../../../ui/Button';
import { count, plural } from '../../../ui/format';
import { MatchChip } from '../../../ui/Marks';

const words: Record<Schemas['AnswerKind'], string> = {
  answers: 'show',
  noPayer: 'not served: no payer',
  nothingMatches: 'match no keyword',
  keptByBudget: 'kept away by the budget',
  blocked: 'blocked by a negative',
  mayNotAnswer: 'match, but may not answer',
};

interface Props {
  outcome: Schemas['TracedTerms'];
  name: string;
  circumstances: { device: string; site: string };
  fetching: boolean;
  onFile: () => void;
  /** The account may have changed since. */
  onAgain: () => void;
}

/** What came of many searches: counts, who answers, and the searches themselves, unanswered ones first. */
export function TermsOutcome({ outcome, name, circumstances, fetching, onFile, onAgain }: Props) {
  const go = useGo();
  return (
    <div>
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-line bg-paper px-3 py-1.5">
        <h2 role="status" className="text-[15px]">
          {plural(outcome.searches, 'search', 'searches')} of {name}
        </h2>
        {outcome.counts.map((each) => (
          <span key={each.kind} className="text-ink-2">
            <b className="text-ink">{count(each.searches)}</b> {words[each.kind]}
          </span>
        ))}
        <Button className="ml-auto" onClick={onAgain}>
          Trace again
        </Button>
        <Button aria-busy={fetching} onClick={onFile}>
          All of them as CSV
        </Button>
      </div>
      {outcome.groups.length > 0 && (
        <section aria-label="Ad groups that answer" className="border-b border-line px-3 py-2">
          <h3 className="mb-1 text-[14px]">Who answers</h3>
          <ul className="grid grid-cols-[repeat(auto-fill,minmax(260px,1fr))] gap-x-6">
            {outcome.groups.map((each) => (
              <li key={each.adGroupId} className="flex gap-2 border-b border-line-soft py-0.5">
                <button
                  type="button"
                  className="min-w-0 truncate text-left text-plum underline decoration-line-strong underline-offset-2"
                  onClick={() =>
                    go('plan/structure', {
                      campaign: each.campaignId,
                      adGroup: null,
                      focus: `adGroup:${each.adGroupId}`,
                    })
                  }
                >
                  {each.adGroup} <span className="text-ink-3">in {each.campaign}</span>
                </button>
                <span className="ml-auto">{count(each.searches)}</span>
              </li>
            ))}
          </ul>
        </section>
      )}
      <table className="w-full">
        <thead>
          <tr className="border-b border-line text-left text-[12px] text-ink-3">
            <th className="px-3 py-1 font-semibold">Search</th>
            <th className="px-3 py-1 font-semibold">Keyword</th>
            <th className="px-3 py-1 font-semibold">What happens</th>
          </tr>
        </thead>
        <tbody>
          {outcome.rows.map((row, place) => (
            <tr key={place} className="border-b border-line-soft align-top">
              <td className="px-3 py-1">
                <button
                  type="button"
                  className="text-left text-plum underline decoration-line-strong underline-offset-2"
                  onClick={() => go('ship/trace', { text: row.text, ...circumstances, of: null })}
                >
                  {row.text}
                </button>
              </td>
              <td className="px-3 py-1 text-ink-2">
                {row.match && (
                  <>
                    <MatchChip match={row.match} /> {row.keyword}
                  </>
                )}
              </td>
              <td className="px-3 py-1 text-ink-2">{row.told}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {outcome.searches > outcome.rows.length && (
        <p className="px-3 py-2 text-ink-3">
          {count(outcome.rows.length)} of {count(outcome.searches)} are shown, those that nothing answers
          first. All are in the file.
        </p>
      )}
    </div>
  );
}
