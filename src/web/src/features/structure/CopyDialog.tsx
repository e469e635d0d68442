import { useState } from 'react';
import type { Command, Device, ItemState, MatchType, Schemas } from '../../api/client';
import { useAdGroups, useCampaigns } from '../../api/hooks';
import { matchNames } from '../../app/format';
import { Choice } from '../../ui/Choice';
import { TextField } from '../../ui/Field';
import { PlacePicker } from './PlacePicker';
import { PreviewDialog } from './PreviewDialog';
import type { Chosen } from './selection';

type Where = 'here' | 'campaigns' | 'adGroups';
type DeviceChoice = Device | 'same' | 'all';

const devices: { value: DeviceChoice; label: string }[] = [
  { value: 'same', label: 'same device' },
  { value: 'phone', label: 'for phones' },
  { value: 'desktop', label: 'for desktops' },
  { value: 'tablet', label: 'for tablets' },
  { value: 'all', label: 'for all devices' },
];
const matches: { value: MatchType | 'same'; label: string }[] = [
  { value: 'same', label: 'same match type' },
  ...Object.entries(matchNames).map(([value, label]) => ({ value: value as MatchType, label })),
];
const states: { value: ItemState | 'same'; label: string }[] = [
  { value: 'same', label: 'same state' },
  { value: 'running', label: 'running' },
  { value: 'paused', label: 'paused' },
];

interface Props {
  chosen: Chosen;
  kinds: ReadonlySet<Schemas['ItemKind']>;
  onClose: () => void;
  onDone: (result: Schemas['CommandAnswer'], command: Command) => void;
}

/** Copies what is selected, with edits on the way: beside the originals, or elsewhere. */
export function CopyDialog({ chosen, kinds, onClose, onDone }: Props) {
  const campaigns = useCampaigns();
  const named = kinds.has('campaign') || kinds.has('adGroup');
  const [where, setWhere] = useState<Where>('here');
  const [campaignIds, setCampaignIds] = useState<readonly number[]>([]);
  const [adGroupIds, setAdGroupIds] = useState<readonly number[]>([]);
  const [pattern, setPattern] = useState(named ? '{name} – copy' : '');
  const [device, setDevice] = useState<DeviceChoice>(kinds.has('textAd') ? 'phone' : 'same');
  const [match, setMatch] = useState<MatchType | 'same'>('same');
  const [state, setState] = useState<ItemState | 'same'>('same');
  const [find, setFind] = useState('');
  const [value, setValue] = useState('');
  const [factor, setFactor] = useState('');
  const bidFactor = factor.trim() === '' ? null : Number(factor.replace(',', '.'));
  const factorProblem = bidFactor !== null && !(bidFactor > 0) ? 'Write it like 1.5.' : null;
  const placed = where === 'here' || (where === 'campaigns' ? campaignIds.length > 0 : adGroupIds.length > 0);
  const command: Command | null =
    placed && !factorProblem
      ? {
          type: 'copy',
          ...chosen,
          place: {
            campaignIds: where === 'campaigns' ? [...campaignIds] : [],
            adGroupIds: where === 'adGroups' ? [...adGroupIds] : [],
          },
          edits: {
            namePattern: named && pattern.trim() && pattern.trim() !== '{name}' ? pattern.trim() : null,
            replace: find ? [{ find, value, isExpression: false, matchCase: false }] : [],
            match: match === 'same' ? null : match,
            bidFactor,
            device: device === 'same' || device === 'all' ? null : device,
            anyDevice: device === 'all',
            state: state === 'same' ? null : state,
          },
        }
      : null;
  const places: { value: Where; label: string }[] = [
    { value: 'here', label: 'beside the originals' },
    ...(kinds.has('campaign') ? [] : [{ value: 'campaigns' as const, label: 'into campaigns' }]),
    ...(named ? [] : [{ value: 'adGroups' as const, label: 'into ad groups' }]),
  ];
  return (
    <PreviewDialog title="Copy with changes" command={command} onClose={onClose} onDone={onDone}>
      <div className="flex flex-wrap items-end gap-2">
        <Choice label="Where the copies go" value={where} options={places} onChange={setWhere} />
        {kinds.has('textAd') && (
          <Choice label="Device of the copies" value={device} options={devices} onChange={setDevice} />
        )}
        {(kinds.has('keyword') || kinds.has('negativeKeyword')) && (
          <Choice label="Match type of the copies" value={match} options={matches} onChange={setMatch} />
        )}
        <Choice label="State of the copies" value={state} options={states} onChange={setState} />
        {(kinds.has('keyword') || named) && (
          <TextField
            label="Max CPC ×"
            className="w-24"
            inputMode="decimal"
            placeholder="1"
            value={factor}
            problem={factorProblem}
            onChange={(event) => setFactor(event.target.value)}
          />
        )}
      </div>
      {where === 'campaigns' && (
        <PlacePicker
          label="Campaigns"
          places={(campaigns.data ?? []).map((each) => ({ id: each.id, name: each.name }))}
          chosen={campaignIds}
          onChoose={setCampaignIds}
        />
      )}
      {where === 'adGroups' && <AdGroupPicker chosen={adGroupIds} onChoose={setAdGroupIds} />}
      <div className="flex items-end gap-2">
        <TextField
          label="Replace in the copies"
          className="flex-1"
          autoFocus
          placeholder="Book today"
          value={find}
          onChange={(event) => setFind(event.target.value)}
        />
        <TextField
          label="by"
          className="flex-1"
          placeholder="Call now"
          value={value}
          onChange={(event) => setValue(event.target.value)}
        />
        {named && (
          <TextField
            label="Name of the copies"
            className="flex-1"
            value={pattern}
            onChange={(event) => setPattern(event.target.value)}
          />
        )}
      </div>
    </PreviewDialog>
  );
}

/** Ad groups of one campaign after the other. */
export function AdGroupPicker({
  chosen,
  onChoose,
}: {
  chosen: readonly number[];
  onChoose: (ids: readonly number[]) => void;
}) {
  const campaigns = useCampaigns();
  const [campaign, setCampaign] = useState<number | null>(null);
  const campaignId = campaign ?? campaigns.data?.[0]?.id ?? null;
  const groups = useAdGroupPlaces(campaignId);
  return (
    <div className="space-y-1.5">
      {campaigns.data && campaignId !== null && (
        <Choice
          label="Campaign of the ad groups"
          value={String(campaignId)}
          options={campaigns.data.map((each) => ({ value: String(each.id), label: each.name }))}
          onChange={(id) => setCampaign(Number(id))}
        />
      )}
      <PlacePicker label="Ad groups" places={groups} chosen={chosen} onChoose={onChoose} />
    </div>
  );
}

function useAdGroupPlaces(campaignId: number | null) {
  return (useAdGroups(campaignId).data ?? []).map((each) => ({ id: each.id, name: each.name }));
}
