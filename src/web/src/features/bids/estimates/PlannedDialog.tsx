import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { useAccount } from '../../../api/account';
import { answer, api } from '../../../api/client';
import { Button } from '../../../ui/Button';
import { Dialog } from '../../../ui/Dialog';
import { TextArea, TextField } from '../../../ui/Field';
import { EstimateTable } from './EstimateTable';

/** Keywords that are not there yet: what the network says that they would bring, and what Fendrik makes of that. */
export function PlannedDialog({
  campaignId,
  atOnce,
  onClose,
}: {
  campaignId: number;
  atOnce: number;
  onClose: () => void;
}) {
  const account = useAccount();
  const [text, setText] = useState('');
  const [bid, setBid] = useState('');
  const ask = useMutation({
    mutationFn: () =>
      answer(
        api.POST('/api/accounts/{accountId}/bids/campaigns/{campaignId}/estimates/planned', {
          params: { path: { accountId: account.id, campaignId } },
          body: { text, bid: bid.trim() || null },
        }),
      ),
  });
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title="Keywords that are planned"
      description={`A usual week in this campaign: its places, hours and modifiers count. Nothing is added. The network answers ${atOnce} at once.`}
      footer={
        <>
          <Button onClick={onClose}>Close</Button>
          <Button tone="plum" disabled={!text.trim() || ask.isPending} onClick={() => ask.mutate()}>
            {ask.isPending ? 'Asking…' : 'Estimate them'}
          </Button>
        </>
      }
    >
      <TextArea
        label="Keywords, one in each line; [exact], “phrase” and +all +words as usual"
        rows={4}
        value={text}
        problem={ask.isError ? ask.error.message : null}
        onChange={(event) => setText(event.target.value)}
      />
      <TextField
        label="Bid"
        className="mt-2 w-[110px]"
        placeholder="usual"
        value={bid}
        onChange={(event) => setBid(event.target.value)}
      />
      {ask.data && (
        <div className="mt-3 max-h-[320px] overflow-auto">
          <EstimateTable lines={ask.data} ownTitle="Fendrik, from what the network says" />
        </div>
      )}
    </Dialog>
  );
}
