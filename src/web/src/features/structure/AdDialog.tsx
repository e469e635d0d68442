import { useState, type FormEvent } from 'react';
import type { Device, Schemas, SheetRow } from '../../api/client';
import { useAdGroups, useCampaigns, useCommand, useNetworkProfile } from '../../api/hooks';
import { useScope } from '../../app/scope';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Dialog } from '../../ui/Dialog';
import { TextField } from '../../ui/Field';

interface Props {
  ad: SheetRow | null;
  place: { campaignId: number | null; adGroupId: number | null };
  onClose: () => void;
}

type DeviceChoice = Device | 'all';

const devices: { value: DeviceChoice; label: string }[] = [
  { value: 'all', label: 'all devices' },
  { value: 'phone', label: 'phones first' },
  { value: 'desktop', label: 'desktops first' },
  { value: 'tablet', label: 'tablets first' },
];

const segmenter = new Intl.Segmenter('en', { granularity: 'grapheme' });
const lengthOf = (text: string) => [...segmenter.segment(text)].length;

function padded(lines: readonly string[] | null | undefined, length: number) {
  return Array.from({ length: Math.max(length, lines?.length ?? 0) }, (_, place) => lines?.[place] ?? '');
}

/** Writes a fixed text ad; lengths and counts are those of the account's network. */
export function AdDialog({ ad, place, onClose }: Props) {
  const network = useNetworkProfile().data;
  if (!network) return null;
  return <AdForm ad={ad} place={place} onClose={onClose} network={network} />;
}

function AdForm({ ad, place, onClose, network }: Props & { network: Schemas['NetworkProfile'] }) {
  const scope = useScope();
  const campaigns = useCampaigns();
  const [campaign, setCampaign] = useState(place.campaignId ?? scope.campaignId);
  const campaignId = ad?.campaignId ?? campaign ?? campaigns.data?.[0]?.id ?? null;
  const adGroups = useAdGroups(campaignId);
  const [group, setGroup] = useState(place.adGroupId ?? scope.adGroupId);
  const adGroupId =
    ad?.adGroupId ??
    (adGroups.data?.some((each) => each.id === group) ? group : (adGroups.data?.[0]?.id ?? null));
  const [headlines, setHeadlines] = useState(() => padded(ad?.headlines, network.headlinesMax));
  const [descriptions, setDescriptions] = useState(() => padded(ad?.descriptions, network.descriptionsMax));
  const [path, setPath] = useState(() => padded(ad?.displayPath, network.pathParts));
  const [url, setUrl] = useState(ad?.finalUrl ?? '');
  const [device, setDevice] = useState<DeviceChoice>(ad?.devicePreference ?? 'all');
  const [problem, setProblem] = useState<{ field: string; text: string } | null>(null);
  const run = useCommand({
    onProblem: (told) => setProblem({ field: Object.keys(told.fields)[0] ?? '', text: told.message }),
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (adGroupId == null) return;
    run.mutate(
      {
        type: 'writeTextAd',
        adId: ad?.id ?? null,
        adGroupId,
        headlines,
        descriptions,
        displayPath: path,
        finalUrl: url,
        devicePreference: device === 'all' ? null : device,
      },
      { onSuccess: onClose },
    );
  };
  return (
    <Dialog open wide onClose={onClose} title={ad ? 'Change the ad' : 'Write an ad'}>
      <form onSubmit={submit} className="grid grid-cols-[1fr_260px] gap-5">
        <div className="space-y-2">
          {!ad && campaigns.data && campaignId !== null && (
            <div className="flex gap-2">
              <Choice
                label="Campaign"
                value={String(campaignId)}
                options={campaigns.data.map((each) => ({ value: String(each.id), label: each.name }))}
                onChange={(id) => setCampaign(Number(id))}
              />
              {adGroups.data && adGroupId !== null && (
                <Choice
                  label="Ad group"
                  value={String(adGroupId)}
                  options={adGroups.data.map((each) => ({ value: String(each.id), label: each.name }))}
                  onChange={(id) => setGroup(Number(id))}
                />
              )}
            </div>
          )}
          {adGroupId == null && <p className="text-ochre">There is no ad group yet. Add one first.</p>}
          <Lines name="Headline" lines={headlines} longest={network.headlineLength} onChange={setHeadlines} />
          <Lines
            name="Description"
            lines={descriptions}
            longest={network.descriptionLength}
            onChange={setDescriptions}
          />
          <Lines name="Path" lines={path} longest={network.pathLength} onChange={setPath} />
          <TextField
            label="Final URL"
            value={url}
            problem={problem?.field === 'finalUrl' ? problem.text : null}
            onChange={(event) => setUrl(event.target.value)}
          />
          <Choice label="Device preference" value={device} options={devices} onChange={setDevice} />
          {problem && problem.field !== 'finalUrl' && (
            <p role="alert" className="text-brick">
              {problem.text}
            </p>
          )}
        </div>
        <div className="flex flex-col gap-3">
          <section
            aria-label="As people see it"
            className="rounded-2xl border border-line-strong bg-white p-3"
          >
            <div className="text-[12px] text-ink-2">
              <b>Sponsored</b> ·{' '}
              {[url.replace(/^https?:\/\//, '').split('/')[0], ...path.filter(Boolean)].join('/')}
            </div>
            <div className="mt-0.5 text-[15px] font-semibold text-plum">
              {headlines.filter(Boolean).join(' – ') || 'Headline'}
            </div>
            <div className="mt-0.5">{descriptions.filter(Boolean).join(' ') || 'Description'}</div>
          </section>
          <div className="mt-auto flex justify-end gap-2">
            <Button onClick={onClose}>Leave</Button>
            <Button
              type="submit"
              tone="ember"
              disabled={run.isPending || adGroupId == null || !headlines.some((line) => line.trim())}
            >
              {ad ? 'Change the ad' : 'Add the ad'}
            </Button>
          </div>
        </div>
      </form>
    </Dialog>
  );
}

interface LinesProps {
  name: string;
  lines: string[];
  longest: number;
  onChange: (lines: string[]) => void;
}

function Lines({ name, lines, longest, onChange }: LinesProps) {
  return lines.map((line, place) => {
    const length = lengthOf(line);
    return (
      <div key={place} className="flex items-center gap-2">
        <TextField
          label={`${name} ${place + 1}`}
          hideLabel
          placeholder={`${name} ${place + 1}`}
          className="flex-1"
          value={line}
          onChange={(event) =>
            onChange(lines.map((each, other) => (other === place ? event.target.value : each)))
          }
        />
        <span
          className={
            length > longest ? 'w-14 text-right font-semibold text-brick' : 'w-14 text-right text-ink-3'
          }
        >
          {length} / {longest}
        </span>
      </div>
    );
  });
}
