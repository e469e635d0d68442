import { useState } from 'react';
import type { SheetRow } from '../../api/client';
import { useKinds } from '../../api/kinds';
import { useScope } from '../../app/scope';
import { Button } from '../../ui/Button';
import { CheckField } from '../../ui/Field';
import { plural } from '../../ui/format';
import { Empty, PageHead } from '../../ui/Panel';
import { CampaignsDialog } from './CampaignsDialog';
import { placesRow } from './placeWords';
import { PlacesSide } from './PlacesSide';
import { SettingSide } from './SettingSide';
import { SettingsTable, type Cell } from './SettingsTable';
import { campaignsOf, useCampaignSettings, usePlacesOf } from './useSettings';

/** Settings of campaigns side by side: what differs is marked, and can be copied across. */
export function SettingsPage() {
  const { campaignId } = useScope();
  const kinds = useKinds();
  const settings = useCampaignSettings();
  const [shown, setShown] = useState<readonly number[] | null>(null);
  const [onlyDifferent, setOnlyDifferent] = useState(false);
  const [choosing, setChoosing] = useState(false);
  const [cell, setCell] = useState<Cell | null>(null);
  const all = settings.data?.rows ?? [];
  const scoped = campaignId !== null && shown === null ? [campaignId] : shown;
  const campaigns = campaignsOf(all, scoped);
  const places = usePlacesOf(campaigns.map((campaign) => campaign.id));
  const problem = settings.error ?? places.error;
  if (problem)
    return (
      <p role="alert" className="p-4 text-brick">
        {problem.message}
      </p>
    );
  if (!settings.data || !places.isReady) return null;
  if (all.length === 0)
    return (
      <Empty title="No campaigns yet">
        Where, when, to whom and at what price campaigns show is set here, side by side. Bring campaigns in,
        or add one in Structure.
      </Empty>
    );
  const total = settings.data.total ?? all.length;
  const fields = kinds.of('campaign').fields.filter((field) => !field.isName);
  const current = campaigns.find((row) => row.id === cell?.campaign) ?? campaigns[0];
  const row = cell?.row ?? placesRow;
  const field = fields.find((each) => each.name === row);
  const placesOf = (campaign: SheetRow) => places.rows.filter((place) => place.campaignId === campaign.id);
  return (
    <div className="flex h-full min-h-0 flex-col">
      <PageHead
        title="Settings"
        note={`${plural(campaigns.length, 'campaign')} of ${total} side by side${total > all.length ? `; the first ${all.length} can be chosen` : ''}`}
      >
        <CheckField label="Only what differs" checked={onlyDifferent} onChange={setOnlyDifferent} />
        <Button onClick={() => setChoosing(true)}>Campaigns…</Button>
      </PageHead>
      <div className="grid min-h-0 flex-1 max-[1099px]:block max-[1099px]:overflow-auto min-[1100px]:grid-cols-[minmax(0,1fr)_340px]">
        <div className="min-h-0 overflow-auto bg-sheet">
          <SettingsTable
            campaigns={campaigns}
            fields={fields}
            placesOf={placesOf}
            onlyDifferent={onlyDifferent}
            cell={{ row, campaign: current?.id ?? 0 }}
            onCell={setCell}
            onEdit={() =>
              document.querySelector<HTMLElement>('[data-setting] input, [data-setting] button')?.focus()
            }
          />
        </div>
        <aside
          className="flex min-h-0 flex-col gap-2.5 overflow-auto border-l border-line bg-paper p-3"
          aria-label="Chosen setting"
          data-setting
        >
          {current &&
            (field ? (
              <SettingSide
                key={`${current.id} ${field.name} ${current.version}`}
                campaign={current}
                others={campaigns.filter((each) => each.id !== current.id)}
                field={field}
              />
            ) : (
              <PlacesSide
                key={current.id}
                campaign={current}
                others={campaigns.filter((each) => each.id !== current.id)}
                places={placesOf(current)}
                placesOf={placesOf}
              />
            ))}
        </aside>
      </div>
      {choosing && (
        <CampaignsDialog
          campaigns={all}
          chosen={campaigns.map((campaign) => campaign.id)}
          onChoose={(ids) => {
            setShown(ids);
            setChoosing(false);
          }}
          onClose={() => setChoosing(false)}
        />
      )}
    </div>
  );
}
