import { useState } from 'react';
import { useAccount } from '../../api/account';
import { answer, api } from '../../api/client';
import { useAct, useCampaigns } from '../../api/hooks';
import { useGo, useScope } from '../../app/scope';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Dialog } from '../../ui/Dialog';
import { TextArea } from '../../ui/Field';

/** A campaign as it runs is shown to those who work here: they say what they think, and propose changes. */
export function ShowCampaignDialog({ onClose }: { onClose: () => void }) {
  const account = useAccount();
  const go = useGo();
  const scope = useScope();
  const campaigns = useCampaigns().data ?? [];
  const [chosen, setChosen] = useState<string | null>(null);
  const [note, setNote] = useState('');
  const { act, busy } = useAct([account.id, 'looks']);
  const campaign =
    chosen ?? String((campaigns.find((each) => each.id === scope.campaignId) ?? campaigns[0])?.id ?? '');
  const show = () =>
    act(async () => {
      const { id } = await answer(
        api.POST('/api/accounts/{accountId}/looks/campaign', {
          params: { path: { accountId: account.id } },
          body: { campaignId: Number(campaign), note },
        }),
      );
      onClose();
      go('ship/changes', { look: id });
    }, 'It stands on the desk of all who work here.');
  return (
    <Dialog
      open
      onClose={onClose}
      title="Show a campaign"
      description="All who work at this account see it whole, with its figures. They say what they think, and propose changes that you take over one by one."
      footer={
        <Button tone="ember" disabled={busy || campaign === ''} onClick={() => void show()}>
          Show it
        </Button>
      }
    >
      <div className="space-y-3">
        {campaigns.length > 0 && (
          <Choice
            label="Campaign"
            className="w-full"
            value={campaign}
            options={campaigns.map((each) => ({ value: String(each.id), label: each.name }))}
            onChange={setChosen}
          />
        )}
        <TextArea
          label="What you would like to know"
          rows={4}
          value={note}
          onChange={(event) => setNote(event.target.value)}
          onKeyDown={(event) => {
            if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) void show();
          }}
        />
      </div>
    </Dialog>
  );
}
