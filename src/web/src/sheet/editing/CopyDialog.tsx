import { useState } from 'react';
import type { Command, ItemKind, Schemas } from '../../api/client';
import { useKinds, type ItemField } from '../../api/kinds';
import { useAdGroups, useCampaigns } from '../../api/hooks';
import { Choice } from '../../ui/Choice';
import { TextField } from '../../ui/Field';
import { PlacePicker } from './PlacePicker';
import { PreviewDialog } from './PreviewDialog';
import type { Chosen } from '../selection';

type Where = 'here' | 'campaigns' | 'adGroups';
const same = '(same)';
const none = '(none)';

/** Copies of ads are most often made for phones. */
const usually: Partial<Record<string, string>> = { devicePreference: 'phone' };

interface Props {
  chosen: Chosen;
  kinds: ReadonlySet<ItemKind>;
  onClose: () => void;
  onDone: (result: Schemas['CommandAnswer'], command: Command) => void;
  onShow?: (stepId: number) => void;
}

/** Copies what is selected, with edits on the way: beside the originals, or elsewhere. */
export function CopyDialog({ chosen, kinds, onClose, onDone, onShow }: Props) {
  const campaigns = useCampaigns();
  const named = kinds.has('campaign') || kinds.has('adGroup');
  const [where, setWhere] = useState<Where>('here');
  const [campaignIds, setCampaignIds] = useState<readonly number[]>([]);
  const [adGroupIds, setAdGroupIds] = useState<readonly number[]>([]);
  const [pattern, setPattern] = useState(named ? '{name} – copy' : '');
  const known = useKinds();
  const fields = [...kinds].flatMap((kind) => known.of(kind).fields);
  const choices = choicesOf(fields);
  const [set, setSet] = useState<Readonly<Record<string, string>>>(() =>
    Object.fromEntries(
      choices.flatMap(({ name }) => {
        const usual = usually[name];
        return usual === undefined ? [] : [[name, usual]];
      }),
    ),
  );
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
            bidFactor,
            set: set,
          },
        }
      : null;
  const places: { value: Where; label: string }[] = [
    { value: 'here', label: 'beside the originals' },
    ...(kinds.has('campaign') ? [] : [{ value: 'campaigns' as const, label: 'into campaigns' }]),
    ...(named ? [] : [{ value: 'adGroups' as const, label: 'into ad groups' }]),
  ];
  return (
    <PreviewDialog
      title="Copy with changes"
      command={command}
      onClose={onClose}
      onDone={onDone}
      onShow={onShow}
    >
      <div className="flex flex-wrap items-end gap-2">
        <Choice label="Where the copies go" value={where} options={places} onChange={setWhere} />
        {choices.map((field) => (
          <Choice
            key={field.name}
            label={`${field.label} of the copies`}
            value={set[field.name] === undefined ? same : set[field.name] || none}
            options={[
              { value: same, label: `same ${field.lowLabel}` },
              ...field.choices.map((choice) => ({ value: choice.key, label: choice.name })),
              ...(field.isClearable ? [{ value: none, label: `no ${field.lowLabel}` }] : []),
            ]}
            onChange={(next) =>
              setSet({
                ...Object.fromEntries(Object.entries(set).filter(([name]) => name !== field.name)),
                ...(next === same ? {} : { [field.name]: next === none ? '' : next }),
              })
            }
          />
        ))}
        {fields.some((field) => field.form === 'amount') && (
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

/** What the copies may be given in another way: one choice for each name. */
function choicesOf(fields: readonly ItemField[]): readonly ItemField[] {
  return [
    ...new Map(
      fields.filter((field) => field.form === 'choice').map((field) => [field.name, field]),
    ).values(),
  ];
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
