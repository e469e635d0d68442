import type { MatchType } from '../../api/client';
import { useMatches } from '../../sheet/editing/WordsDialog';
import { Choice } from '../../ui/Choice';
import { plural } from '../../ui/format';
import { RadioGroup } from '../../ui/RadioGroup';
import { columnsOf, type ColumnsProps } from './columnsOf';

/** What bare keywords are is asked once; the account remembers it. */
export function BareKeywords({ intake, onColumns }: ColumnsProps) {
  const matches = useMatches();
  const count = plural(intake.bareKeywords, 'keyword');
  const choose = (bareMatch: MatchType) =>
    onColumns({ ...columnsOf(intake), bareMatch, bareMatchChosen: true });
  if (intake.bareMatchKnown)
    return (
      <div className="flex items-center justify-between">
        {count} without a match type {intake.bareKeywords === 1 ? 'is' : 'are'}
        <Choice
          label="Match type of bare keywords"
          value={intake.bareMatch ?? 'broad'}
          options={matches}
          onChange={choose}
        />
      </div>
    );
  return (
    <section aria-label="Bare keywords" className="rounded-lg border border-ochre bg-ochre-wash p-2.5">
      <h3 className="font-body text-[13px] font-semibold">
        {count} {intake.bareKeywords === 1 ? 'has' : 'have'} no match type. Which one?
      </h3>
      <p className="mb-1 text-ink-2">Asked once; this account remembers it.</p>
      <RadioGroup
        label="Match type of bare keywords"
        value={'' as MatchType}
        options={matches.map(({ value, label }) => ({ value, label, hint: suits[value] }))}
        onChange={choose}
      />
    </section>
  );
}

/** What each match type is good for, in the words of the trade. */
const suits: Record<MatchType, string> = {
  exact: 'tight groups',
  phrase: 'targeted lists',
  allWords: 'calls',
  broad: 'big cheap lists',
};
