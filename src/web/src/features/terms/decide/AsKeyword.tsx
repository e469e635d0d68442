import { useState } from 'react';
import type { MatchType } from '../../../api/client';
import { useMatches } from '../../../sheet/editing/WordsDialog';
import { Choice } from '../../../ui/Choice';
import { TextField } from '../../../ui/Field';
import { percent, plural } from '../../../ui/format';
import { Panel } from '../../../ui/Panel';
import type { TermsProposal } from '../useTerms';
import { DecideForm } from './DecideForm';
import { useDecide } from './useDecide';

/** Terms that become keywords, each in the ad group whose keywords are closest to it. */
export function AsKeyword({ proposal }: { proposal: TermsProposal }) {
  const matches = useMatches();
  const [match, setMatch] = useState<MatchType>('exact');
  const [bid, setBid] = useState('');
  const [chosen, setChosen] = useState<ReadonlyMap<string, number>>(new Map());
  const { decide, problem, isPending } = useDecide();
  const homeOf = (term: TermsProposal['terms'][number]) => chosen.get(term.term) ?? term.homes[0]?.adGroupId;
  const placed = proposal.terms.filter((term) => homeOf(term) !== undefined);
  const submit = () => {
    const byGroup = new Map<number, string[]>();
    for (const term of placed) {
      const home = homeOf(term);
      if (home !== undefined) byGroup.set(home, [...(byGroup.get(home) ?? []), term.term]);
    }
    decide({
      decision: 'keyword',
      terms: placed.map((term) => term.term),
      keywords: [...byGroup].map(([adGroupId, terms]) => ({ adGroupId, terms })),
      match,
      values: bid.trim() ? { maxCpc: bid.trim() } : null,
    });
  };
  return (
    <DecideForm
      does={`Add ${plural(placed.length, 'keyword')}`}
      can={!isPending && placed.length > 0}
      problem={problem}
      onSubmit={submit}
    >
      <Panel title="Where it becomes a keyword">
        <ul className="space-y-1.5">
          {proposal.terms.map((term) => (
            <li key={term.term}>
              <span className="block truncate font-semibold" title={term.term}>
                {term.term}
              </span>
              {term.homes.length === 0 ? (
                <span className="text-ochre">◆ No ad group has a word of it: add it in Structure.</span>
              ) : (
                <Choice
                  label={`Ad group for ${term.term}`}
                  className="w-full"
                  value={String(homeOf(term))}
                  options={term.homes.map((home) => ({
                    value: String(home.adGroupId),
                    label: `${home.adGroup} · ${percent(home.closeness, 0)} the same words`,
                  }))}
                  onChange={(next) => setChosen(new Map(chosen).set(term.term, Number(next)))}
                />
              )}
            </li>
          ))}
        </ul>
        <div className="mt-2 flex items-end gap-2">
          <Choice label="Match type" value={match} options={matches} onChange={setMatch} />
          <TextField
            label="Own bid"
            className="w-[110px]"
            placeholder="ad group’s"
            inputMode="decimal"
            value={bid}
            onChange={(event) => setBid(event.target.value)}
          />
        </div>
      </Panel>
    </DecideForm>
  );
}
