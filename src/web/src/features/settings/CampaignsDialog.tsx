import { useState } from 'react';
import type { SheetRow } from '../../api/client';
import { Button } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { CheckField, TextField } from '../../ui/Field';

interface Props {
  campaigns: readonly SheetRow[];
  chosen: readonly number[];
  onChoose: (ids: number[]) => void;
  onClose: () => void;
}

/** Which campaigns stand side by side. */
export function CampaignsDialog({ campaigns, chosen, onChoose, onClose }: Props) {
  const [ids, setIds] = useState<readonly number[]>(chosen);
  const [find, setFind] = useState('');
  const found = campaigns.filter((campaign) => campaign.name.toLowerCase().includes(find.toLowerCase()));
  return (
    <Dialog
      open
      onClose={onClose}
      title="Campaigns side by side"
      description="The first of them is what the others are held against."
      footer={
        <>
          <Button onClick={() => setIds(found.map((campaign) => campaign.id))}>All found</Button>
          <Button onClick={() => setIds([])}>None</Button>
          <Button tone="ember" disabled={ids.length === 0} data-confirms onClick={() => onChoose([...ids])}>
            Show {ids.length}
          </Button>
        </>
      }
    >
      <TextField label="Find" value={find} onChange={(event) => setFind(event.target.value)} />
      <div className="mt-2 space-y-1">
        {found.map((campaign) => (
          <CheckField
            key={campaign.id}
            label={campaign.name}
            checked={ids.includes(campaign.id)}
            onChange={(on) => setIds(on ? [...ids, campaign.id] : ids.filter((id) => id !== campaign.id))}
          />
        ))}
      </div>
    </Dialog>
  );
}
