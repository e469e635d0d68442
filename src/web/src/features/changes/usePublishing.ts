import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { answer, api, type ItemReference, type Job, type Schemas } from '../../api/client';
import { tell, useJob, useRefresh, useStatus } from '../../api/hooks';
import { useAccount } from '../../api/account';

/** The publishes of the account, and what can be done about the newest. */
export function usePublishing() {
  const account = useAccount();
  const status = useStatus();
  const refresh = useRefresh();
  const [jobId, setJobId] = useState<number | null>(null);
  const [beginning, setBeginning] = useState(false);
  const [ended, setEnded] = useState<Job | null>(null);
  const publishes = useQuery({
    queryKey: [account.id, 'publishes'],
    queryFn: () =>
      answer(api.GET('/api/accounts/{accountId}/publishes', { params: { path: { accountId: account.id } } })),
  });
  const renew = () => refresh(['status', 'pending', 'live', 'publishes', 'unpublished', 'sheet', 'checks']);
  // A page that is opened while a publish runs takes it up.
  const { job, isRunning, cancel } = useJob(jobId ?? status.data?.runningJobId ?? null, (finished) => {
    if (finished.kind === 'publish') setEnded(finished);
    // The next one may be somebody else's.
    setJobId(null);
    void renew();
  });
  /** True when it began. */
  const begin = async (send: () => Promise<Job>) => {
    setEnded(null);
    setBeginning(true);
    let begun = false;
    try {
      setJobId((await send()).id);
      begun = true;
    } catch (error) {
      tell(error);
      await renew();
    }
    setBeginning(false);
    return begun;
  };
  const path = { accountId: account.id };
  return {
    publishes: publishes.data ?? [],
    job: isRunning && job?.kind === 'publish' ? job : null,
    beginning,
    ended,
    stop: cancel,
    /** Publishes a part, with what it cannot do without; or all but what is held back. */
    publish: (items: ItemReference[] | null, shown: Schemas['ShownPreview'] | null) =>
      begin(() =>
        answer(api.POST('/api/accounts/{accountId}/publishes', { params: { path }, body: { items, shown } })),
      ),
    goOn: (publishId: number) =>
      begin(() =>
        answer(
          api.POST('/api/accounts/{accountId}/publishes/{publishId}/continue', {
            params: { path: { ...path, publishId } },
          }),
        ),
      ),
    giveUp: async (publishId: number) => {
      setBeginning(true);
      try {
        await answer(
          api.POST('/api/accounts/{accountId}/publishes/{publishId}/abandon', {
            params: { path: { ...path, publishId } },
          }),
        );
      } catch (error) {
        tell(error);
      }
      await renew();
      setBeginning(false);
    },
  };
}
