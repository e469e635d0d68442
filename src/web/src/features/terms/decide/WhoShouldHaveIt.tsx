import { useState } from 'react';
import { useAccount } from '../../../api/account';
import { Button } from '../../../ui/Button';
import { count, money, percent, plural } from '../../../ui/format';
import { Panel } from '../../../ui/Panel';
import { RadioGroup } from '../../../ui/RadioGroup';
import type { TermsProposal } from '../useTerms';
import { useDecide } from './useDecide';

/** A term that several ad groups answer: one keeps it, and an exact negative settles it in the others. */
export function WhoShouldHaveIt({ term }: { term: TermsProposal['terms'][number] }) {
  const groups = term.answering;
  const account = useAccount();
  const [keeps, setKeeps] = useState(String(groups[0]?.adGroupId));
  const { decide, problem, isPending } = useDecide();
  const others = groups.filter((group) => String(group.adGroupId) !== keeps);
  return (
    <Panel title="Who should have it?">
      <RadioGroup
        label="Ad group that keeps it"
        value={keeps}
        onChange={setKeeps}
        options={groups.map((group) => ({
          value: String(group.adGroupId),
          label: group.adGroup,
          hint: `${percent(group.closeness, 0)} the same words · ${money(group.figures.cost, account)} · ${count(group.figures.conversions)} conv.`,
        }))}
      />
      {problem && (
        <p role="alert" className="mt-1 text-brick">
          {problem}
        </p>
      )}
      <Button
        className="mt-2 w-full"
        disabled={isPending}
        onClick={() =>
          decide({
            decision: 'negative',
            terms: [term.term],
            negatives: term.line,
            match: 'exact',
            places: { adGroupIds: others.map((group) => group.adGroupId) },
          })
        }
      >
        Keep it out of {plural(others.length, 'other group')}
      </Button>
    </Panel>
  );
}
