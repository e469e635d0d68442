import type { Schemas } from '../../../api/client';
import { Button } from '../../../ui/Button';
import type { Question } from '../question';
import { useSavedSearchActs } from './useSavedSearches';

/** Keeps the search that was traced as a test: that it goes on doing what it does, or stops doing it. */
export function KeepSearch({ trace, question }: { trace: Schemas['SearchTrace']; question: Question }) {
  const { save } = useSavedSearchActs();
  const answering = trace.keywords.find((keyword) => keyword.answers);
  const keep = (expectation: Schemas['Expectation'], adGroupId: number | null) =>
    void save([
      {
        text: question.text,
        device: question.device,
        site: question.site,
        place: question.place,
        expectation,
        adGroupId,
      },
    ]);
  return (
    <div role="group" aria-label="Save this search" className="mt-2 flex flex-wrap items-center gap-1.5">
      <span className="text-ink-3">Save it:</span>
      {answering ? (
        <Button onClick={() => keep('showsFrom', answering.adGroupId)}>
          Should show from {answering.adGroup}
        </Button>
      ) : (
        <Button onClick={() => keep('shows', null)}>Should show</Button>
      )}
      <Button onClick={() => keep('showsNot', null)}>Should not show</Button>
    </div>
  );
}
