import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useRef, useState } from 'react';
import { toast } from 'sonner';
import { useAccount } from './account';
import { answer, api, ApiProblem, type Command, type Job, type Schemas } from './client';
import { postCommand } from './postCommand';
import { useVariant } from './variant';
import { sendNamed } from './waiting';

/** Everything that a change of the working copy may have moved. */
const movedByChanges = [
  'status',
  'sheet',
  'totals',
  'pending',
  'checks',
  'desk',
  'results',
  'history',
  'campaigns',
  'adGroups',
  'step',
  'labels',
  'negatives',
  'live',
  'duplicates',
  'trace',
  'intake',
  'openIntake',
  'savedSearches',
  'payer',
  'extensions',
  'links',
  'hours',
  'bids',
  'budgets',
  'terms',
  'conversions',
  'calls',
  'looks',
];

export function useRefresh() {
  const queries = useQueryClient();
  const account = useAccount();
  return useCallback(
    (names: readonly string[] = movedByChanges) =>
      Promise.all(names.map((name) => queries.invalidateQueries({ queryKey: [account.id, name] }))),
    [queries, account.id],
  );
}

/** Does something, says that it is done or why not, and reads anew what it moved. */
export function useAct(moved: readonly unknown[]) {
  const queries = useQueryClient();
  const [busy, setBusy] = useState(false);
  const act = async (work: () => Promise<unknown>, said: string | null) => {
    setBusy(true);
    let done = true;
    try {
      await work();
      if (said) toast(said);
    } catch (error) {
      done = false;
      tell(error);
    }
    setBusy(false);
    await queries.invalidateQueries({ queryKey: moved });
    return done;
  };
  return { act, busy };
}

export function useStatus() {
  const account = useAccount();
  return useQuery({
    queryKey: [account.id, 'status'],
    queryFn: () =>
      answer(api.GET('/api/accounts/{accountId}/status', { params: { path: { accountId: account.id } } })),
    // After a big step the counts follow.
    refetchInterval: ({ state }) => (state.data?.counting ? 400 : 15_000),
  });
}

export function useCampaigns() {
  const account = useAccount();
  return useQuery({
    queryKey: [account.id, 'campaigns'],
    queryFn: () =>
      answer(api.GET('/api/accounts/{accountId}/campaigns', { params: { path: { accountId: account.id } } })),
  });
}

export function useAdGroups(campaignId: number | null) {
  const account = useAccount();
  return useQuery({
    queryKey: [account.id, 'adGroups', campaignId],
    enabled: campaignId !== null,
    queryFn: () =>
      answer(
        api.GET('/api/accounts/{accountId}/campaigns/{campaignId}/ad-groups', {
          params: { path: { accountId: account.id, campaignId: campaignId ?? 0 } },
        }),
      ),
  });
}

export function useNetworkProfile() {
  const account = useAccount();
  return useQuery({
    queryKey: [account.id, 'network'],
    staleTime: Infinity,
    queryFn: () =>
      answer(api.GET('/api/accounts/{accountId}/network', { params: { path: { accountId: account.id } } })),
  });
}

export function tell(error: unknown) {
  toast.error(error instanceof ApiProblem ? error.message : 'Something went wrong here. Try again.');
}

/** Undo and redo, with the page brought up to date. */
export function useUndo() {
  const account = useAccount();
  const refresh = useRefresh();
  const run = useCallback(
    async (way: 'undo' | 'redo') => {
      try {
        const result = await sendNamed(account.id, (requestId, signal) =>
          answer(
            api.POST(`/api/accounts/{accountId}/${way}`, {
              params: { path: { accountId: account.id }, header: { 'X-Fendrik-Request': requestId } },
              signal,
            }),
          ),
        );
        toast(result.label);
      } catch (error) {
        tell(error);
      }
      await refresh();
    },
    [account.id, refresh],
  );
  return { undo: useCallback(() => run('undo'), [run]), redo: useCallback(() => run('redo'), [run]) };
}

/** Runs a command as a step that can be undone. Problems are told unless the caller takes them. */
export function useCommand(
  options: {
    quiet?: boolean;
    onProblem?: (problem: ApiProblem, command: Command) => void;
    /** Shows what the step touched. */
    onShow?: (stepId: number) => void;
  } = {},
) {
  const account = useAccount();
  const refresh = useRefresh();
  const { undo } = useUndo();
  const variant = useVariant();
  return useMutation({
    mutationFn: (command: Command) => postCommand(account.id, command, false, variant),
    onSuccess: async (result) => {
      if (variant !== null) tellProposed(result);
      else if (!options.quiet) tellResult(result, () => void undo(), options.onShow);
      await refresh();
    },
    onError: (error, command) => {
      if (options.onProblem && error instanceof ApiProblem) options.onProblem(error, command);
      else tell(error);
      // What was held against an older version is shown as it is now.
      void refresh(['hours', 'bids', 'budgets', 'conversions', 'calls']);
    },
  });
}

/** What is likely a slip is said at once, with the way back beside it. */
export function tellWarnings(result: Schemas['CommandAnswer'], undo?: () => void) {
  const warning = result.warnings[0];
  if (!warning || !result.stepId) return;
  toast.warning(`${warning.name}: ${warning.message}`, {
    duration: 12_000,
    description: result.warnings.length > 1 ? `and ${result.warnings.length - 1} more` : undefined,
    action: undo ? { label: 'Undo', onClick: undo } : undefined,
  });
}

/** What was proposed stands in the list beside; what could not be is said. */
function tellProposed(result: Schemas['CommandAnswer']) {
  const [first] = result.refused;
  if (first) toast(`${first.name}: ${first.reason}`);
  if (result.items > 0) toast(`Proposed: ${result.label}`);
}

function tellResult(result: Schemas['CommandAnswer'], undo: () => void, show?: (stepId: number) => void) {
  const refused = result.refusedCount;
  const description =
    refused > 0 ? `${refused} left as before: ${result.refused[0]?.reason ?? ''}` : undefined;
  if (result.items === 0)
    toast(refused > 0 ? 'Nothing was changed.' : 'Nothing to change: all is so already.', { description });
  else if (result.warnings.length > 0) tellWarnings(result, undo);
  else {
    const step = result.stepId;
    toast(result.label, {
      description,
      action: { label: 'Undo', onClick: undo },
      cancel: show && step ? { label: 'Show what was touched', onClick: () => show(step) } : undefined,
    });
  }
}

const running = (job: Job | undefined) => !job || job.state === 'waiting' || job.state === 'running';

/** Follows a job until it ends, then calls back once. */
export function useJob(jobId: number | null, onEnd?: (job: Job) => void) {
  const account = useAccount();
  const query = useQuery({
    queryKey: [account.id, 'job', jobId],
    enabled: jobId !== null,
    queryFn: () =>
      answer(
        api.GET('/api/accounts/{accountId}/jobs/{jobId}', {
          params: { path: { accountId: account.id, jobId: jobId ?? 0 } },
        }),
      ),
    refetchInterval: (current) => (running(current.state.data) ? 250 : false),
  });
  const ended = useRef<number | null>(null);
  const callback = useRef(onEnd);
  useEffect(() => {
    callback.current = onEnd;
  });
  useEffect(() => {
    const job = query.data;
    if (job && !running(job) && ended.current !== job.id) {
      ended.current = job.id;
      callback.current?.(job);
    }
  }, [query.data]);
  const cancel = useCallback(async () => {
    if (jobId === null) return;
    await api.POST('/api/accounts/{accountId}/jobs/{jobId}/cancel', {
      params: { path: { accountId: account.id, jobId } },
    });
  }, [account.id, jobId]);
  return { job: query.data, isRunning: jobId !== null && running(query.data), cancel };
}
