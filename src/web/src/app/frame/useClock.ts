import { useState } from 'react';
import { toast } from 'sonner';
import { answer, api } from '../../api/client';
import { tell, useJob, useRefresh, useStatus } from '../../api/hooks';
import { useAccount } from '../../api/account';

/** How far the simulated clock is moved at once. */
export const clockMoves = [
  { name: 'One hour on', hours: 1 },
  { name: 'One day on', hours: 24 },
  { name: 'One week on', hours: 168 },
  { name: 'Until the reports of today', hours: 0 },
] as const;

/** The network's simulated clock; it moves when it is told to. */
export function useClock() {
  const account = useAccount();
  const status = useStatus();
  const refresh = useRefresh();
  const [jobId, setJobId] = useState<number | null>(null);
  const { job, isRunning, cancel } = useJob(jobId, (ended) => {
    if (ended.state === 'done')
      toast(ended.message ?? 'Time has passed on the network.', { duration: 12_000 });
    else if (ended.state === 'cancelled') toast('The clock was stopped; the days that passed are reported.');
    else toast.error(ended.message ?? 'The clock could not be moved.');
    void refresh();
    void refresh(['results']);
  });
  const move = async (hours: number) => {
    try {
      const begun = await answer(
        api.POST('/api/accounts/{accountId}/clock', {
          params: { path: { accountId: account.id } },
          body: { hours },
        }),
      );
      setJobId(begun.id);
    } catch (error) {
      tell(error);
    }
  };
  const time = isRunning
    ? `time passes… ${job?.total ? Math.round((100 * job.done) / job.total) : 0}%`
    : status.data?.networkTime
      ? `${status.data.networkTime} sim`
      : 'clock not read yet';
  return { time, isRunning, stop: () => void cancel(), move: (hours: number) => void move(hours) };
}

export type Clock = ReturnType<typeof useClock>;
