import { useState } from 'react';
import type { Command, MatchType, SheetRow } from '../../api/client';
import { useCampaigns } from '../../api/hooks';
import { useMatches } from '../../sheet/editing/WordsDialog';
import { plural } from '../../ui/format';
import { useScope } from '../../app/scope';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { CheckField, TextArea } from '../../ui/Field';
import { NegativeForms } from '../../sheet/editing/NegativeForms';
import { PlacePicker } from '../../sheet/editing/PlacePicker';

interface Props {
  listId: number | null;
  lists: readonly SheetRow[];
  onPreview: (command: Command) => void;
}

/** A pasted list of words goes to several campaigns and lists at once. */
export function PastePanel({ listId, lists, onPreview }: Props) {
  const scope = useScope();
  const campaigns = useCampaigns();
  const matches = useMatches();
  const [lines, setLines] = useState('');
  const [match, setMatch] = useState<MatchType>('phrase');
  const [matchForAll, setMatchForAll] = useState(false);
  const [campaignIds, setCampaignIds] = useState<readonly number[]>(
    listId === null && scope.adGroupId === null && scope.campaignId !== null ? [scope.campaignId] : [],
  );
  const [listIds, setListIds] = useState<readonly number[]>(listId === null ? [] : [listId]);
  const inGroup = listId === null && scope.adGroupId !== null;
  const [adGroup, setAdGroup] = useState(inGroup);
  const count = lines.split('\n').filter((line) => line.trim()).length;
  const adGroupIds = adGroup && scope.adGroupId !== null ? [scope.adGroupId] : [];
  const places = campaignIds.length + listIds.length + adGroupIds.length;
  const add = () =>
    onPreview({
      type: 'addWords',
      kind: 'negativeKeyword',
      lines,
      match,
      matchForAll,
      places: { campaignIds: [...campaignIds], adGroupIds, listIds: [...listIds] },
    });
  return (
    <>
      <h2 className="text-[15px]">Paste negatives</h2>
      <TextArea
        label="One on each line"
        rows={8}
        value={lines}
        hint={'[exact] and "phrase" are understood. Ctrl Enter adds them.'}
        onChange={(event) => setLines(event.target.value)}
        onKeyDown={(event) => {
          if (event.key !== 'Enter' || !(event.ctrlKey || event.metaKey) || count === 0 || places === 0)
            return;
          event.preventDefault();
          add();
        }}
      />
      <NegativeForms lines={lines} onLines={setLines} />
      <div className="flex flex-wrap items-center gap-2">
        {matchForAll ? 'All are' : 'Bare words are'}
        <Choice label="Match type" value={match} options={matches} onChange={setMatch} />
      </div>
      <CheckField label="this match type for all of them" checked={matchForAll} onChange={setMatchForAll} />
      {inGroup && <CheckField label="on the ad group of the scope" checked={adGroup} onChange={setAdGroup} />}
      <PlacePicker
        label="On campaigns"
        places={(campaigns.data ?? []).map((each) => ({ id: each.id, name: each.name }))}
        chosen={campaignIds}
        onChoose={setCampaignIds}
      />
      {lists.length > 0 && (
        <PlacePicker
          label="In shared lists"
          places={lists.map((each) => ({ id: each.id, name: each.name }))}
          chosen={listIds}
          onChoose={setListIds}
        />
      )}
      <Button tone="plum" disabled={count === 0 || places === 0} onClick={add}>
        {count === 0
          ? 'Enter negatives first'
          : places === 0
            ? 'Choose where they hold'
            : `Add ${plural(count, 'negative')} in ${plural(places, 'place')}…`}
      </Button>
    </>
  );
}
