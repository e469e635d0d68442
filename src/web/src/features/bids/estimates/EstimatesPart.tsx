import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import { useAccount } from '../../../api/account';
import { answer, api } from '../../../api/client';
import { tell, useJob } from '../../../api/hooks';
import { Button } from '../../../ui/Button';
import { Empty } from '../../../ui/Panel';
import { Progress } from '../../../ui/Progress';
import { ChooseCampaign } from '../ChooseCampaign';
import { useEstimates } from '../useBids';
import { CurveSide } from './CurveSide';
import { EstimateTable } from './EstimateTable';
import { PlannedDialog } from './PlannedDialog';
import { WhatCame } from './WhatCame';

interface Props {
  campaignId: number | null;
  adGroupId: number | null;
}

/** What keywords would bring at their bids and at others: the network’s estimate beside Fendrik’s, and how both turned out. */
export function EstimatesPart({ campaignId, adGroupId }: Props) {
  const [keyword, setKeyword] = useState<number | null>(null);
  const [change, setChange] = useState('');
  const [planned, setPlanned] = useState(false);
  const estimates = useEstimates(campaignId, adGroupId, keyword, change);
  const asking = useAsking(campaignId);
  if (campaignId === null)
    return (
      <ChooseCampaign
        title="What would it bring?"
        says="What keywords would bring at other bids is estimated campaign by campaign."
      />
    );
  if (estimates.isError)
    return (
      <p role="alert" className="p-4 text-brick">
        {estimates.error.message}
      </p>
    );
  const { data } = estimates;
  if (!data) return null;
  return (
    <>
      <div className="flex flex-wrap items-center gap-2 border-b border-line-soft bg-sheet px-3 py-1.5">
        <span className="min-w-0 flex-1 text-ink-2">
          A usual week with budget enough, by Fendrik from history and by the network, which errs.
        </span>
        {asking.isRunning && (
          <span className="flex items-center gap-2">
            <span className="w-[120px]">
              <Progress
                label="Asking the network"
                done={asking.job?.done ?? 0}
                total={asking.job?.total ?? null}
              />
            </span>
            <span className="text-ink-2" aria-live="polite">
              {asking.job?.total ? `${asking.job.done} of ${asking.job.total} keywords` : 'Asking…'}
            </span>
            <Button tone="quiet" onClick={asking.stop}>
              Stop
            </Button>
          </span>
        )}
        <Button disabled={asking.isRunning} onClick={asking.begin}>
          Ask the network
        </Button>
        <Button onClick={() => setPlanned(true)}>Keywords that are planned…</Button>
      </div>
      {data.keywords.length === 0 ? (
        <Empty title="No keywords yet">
          Bring keywords in, or ask about some that are planned: the network says what they would bring.
        </Empty>
      ) : (
        <div className="grid min-h-0 flex-1 max-[1099px]:block max-[1099px]:overflow-auto min-[1100px]:grid-cols-[minmax(0,1fr)_360px]">
          <div className="min-h-0 overflow-auto bg-sheet">
            <EstimateTable lines={data.keywords} current={keyword} onCurrent={setKeyword} />
            {data.more && (
              <p className="px-3 py-2 text-ink-3">
                There are more keywords than are listed: choose an ad group.
              </p>
            )}
            <WhatCame estimates={data} />
          </div>
          <CurveSide
            estimates={data}
            isOfKeyword={keyword !== null}
            onAll={() => setKeyword(null)}
            change={change}
            onChange={setChange}
          />
        </div>
      )}
      {planned && (
        <PlannedDialog campaignId={campaignId} atOnce={data.atOnce} onClose={() => setPlanned(false)} />
      )}
    </>
  );
}

/** Asking the network about all keywords of a campaign, with how far that is. */
function useAsking(campaignId: number | null) {
  const account = useAccount();
  const queries = useQueryClient();
  const [jobId, setJobId] = useState<number | null>(null);
  const { job, isRunning, cancel } = useJob(jobId, (ended) => {
    if (ended.state === 'done') toast(ended.message ?? 'The network was asked.');
    else toast.error(ended.message ?? 'The network could not be asked. What it said until then is kept.');
    void queries.invalidateQueries({ queryKey: [account.id, 'bids'] });
  });
  const begin = async () => {
    try {
      const begun = await answer(
        api.POST('/api/accounts/{accountId}/bids/campaigns/{campaignId}/estimates', {
          params: { path: { accountId: account.id, campaignId: campaignId ?? 0 } },
        }),
      );
      setJobId(begun.id);
    } catch (error) {
      tell(error);
    }
  };
  return { job, isRunning, begin: () => void begin(), stop: () => void cancel() };
}
