import { useState } from 'react';
import type { Command, MatchType, Schemas } from '../../api/client';
import { plural } from '../../ui/format';
import { Choice } from '../../ui/Choice';
import { TextArea } from '../../ui/Field';
import type { Chosen } from '../selection';
import { NegativeForms } from './NegativeForms';
import { PreviewDialog } from './PreviewDialog';
import { useMatches } from './WordsDialog';

interface Props {
  /** The campaigns and ad groups that get them. */
  places: Chosen;
  onClose: () => void;
  onDone: (result: Schemas['CommandAnswer'], command: Command) => void;
  onShow?: (stepId: number) => void;
}

/** One list of negatives onto all campaigns and ad groups that are selected. */
export function NegativesDialog({ places, ...dialog }: Props) {
  const matches = useMatches();
  const [lines, setLines] = useState('');
  const [match, setMatch] = useState<MatchType>('phrase');
  const of = (kind: string) => places.items.filter((item) => item.kind === kind).map((item) => item.id);
  const where = { campaignIds: of('campaign'), adGroupIds: of('adGroup') };
  const command: Command | null =
    lines.trim() === '' ? null : { type: 'addWords', kind: 'negativeKeyword', lines, match, places: where };
  return (
    <PreviewDialog
      title={`Negatives onto ${[
        where.campaignIds.length > 0 ? plural(where.campaignIds.length, 'campaign') : '',
        where.adGroupIds.length > 0 ? plural(where.adGroupIds.length, 'ad group') : '',
      ]
        .filter(Boolean)
        .join(' and ')}`}
      command={command}
      {...dialog}
    >
      {places.where ? (
        <p className="text-ochre">
          Mark the campaigns or ad groups one by one; at most 500 get negatives at once.
        </p>
      ) : (
        <>
          <TextArea
            label="One on each line"
            rows={5}
            value={lines}
            hint={'[exact] and "phrase" are understood. Ctrl Enter adds them.'}
            onChange={(event) => setLines(event.target.value)}
          />
          <div className="flex items-center gap-2">
            Bare words are
            <Choice label="Match type of bare words" value={match} options={matches} onChange={setMatch} />
          </div>
          <NegativeForms lines={lines} onLines={setLines} />
        </>
      )}
    </PreviewDialog>
  );
}
