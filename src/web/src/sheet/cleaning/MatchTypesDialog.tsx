import { useState } from 'react';
import type { Command, MatchType, Schemas } from '../../api/client';
import { useMatches } from '../editing/WordsDialog';
import { CheckField, TextField } from '../../ui/Field';
import { PreviewDialog } from '../editing/PreviewDialog';
import type { Chosen } from '../selection';

interface Props {
  chosen: Chosen;
  onClose: () => void;
  onDone: (result: Schemas['CommandAnswer'], command: Command) => void;
  onShow?: (stepId: number) => void;
}

/** Adds each selected keyword in other match types, at a bid in proportion. */
export function MatchTypesDialog({ chosen, onClose, onDone, onShow }: Props) {
  const [matches, setMatches] = useState<readonly MatchType[]>([]);
  const [factor, setFactor] = useState('');
  const bidFactor = factor.trim() === '' ? null : Number(factor.replace(',', '.'));
  const problem = bidFactor !== null && !(bidFactor > 0) ? 'Write it like 0.3.' : null;
  const command: Command | null =
    matches.length > 0 && !problem
      ? { type: 'addMatchTypes', ...chosen, matches: [...matches], bidFactor }
      : null;
  return (
    <PreviewDialog
      title="Add match types"
      command={command}
      onClose={onClose}
      onDone={onDone}
      onShow={onShow}
    >
      <div className="flex items-end gap-4">
        <MatchTypeChecks matches={matches} onMatches={setMatches} />
        <TextField
          label="Max CPC ×"
          className="w-28"
          inputMode="decimal"
          placeholder="1"
          value={factor}
          problem={problem}
          onChange={(event) => setFactor(event.target.value)}
        />
      </div>
    </PreviewDialog>
  );
}

export function MatchTypeChecks({
  matches,
  onMatches,
}: {
  matches: readonly MatchType[];
  onMatches: (matches: readonly MatchType[]) => void;
}) {
  return (
    <div className="flex flex-wrap gap-x-4 py-1">
      {useMatches().map(({ value: match, label }) => (
        <CheckField
          key={match}
          label={<span className={`match match-${match}`}>{label}</span>}
          checked={matches.includes(match)}
          onChange={(on) => onMatches(on ? [...matches, match] : matches.filter((each) => each !== match))}
        />
      ))}
    </div>
  );
}
