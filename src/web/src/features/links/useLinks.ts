import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useDeferredValue, useState } from 'react';
import { toast } from 'sonner';
import { useAccount } from '../../api/account';
import { answer, api, type Schemas } from '../../api/client';
import { tell, useJob, useRefresh } from '../../api/hooks';
import type { Scope } from '../../app/scope';

/** What a template can say of a click. */
export function useVariables() {
  const account = useAccount();
  return useQuery({
    queryKey: [account.id, 'variables'],
    staleTime: Infinity,
    queryFn: () =>
      answer(
        api.GET('/api/accounts/{accountId}/links/variables', { params: { path: { accountId: account.id } } }),
      ),
  });
}

/** The item whose template is written: the ad group, the campaign or the account, as the chips at the top say. */
export function useTemplateHolder({ campaignId, adGroupId }: Scope) {
  const account = useAccount();
  const kind: Schemas['ItemKind'] =
    adGroupId !== null ? 'adGroup' : campaignId !== null ? 'campaign' : 'account';
  return useQuery({
    queryKey: [account.id, 'sheet', 'templateHolder', kind, campaignId, adGroupId],
    queryFn: ({ signal }) =>
      answer(
        api.POST('/api/accounts/{accountId}/sheet', {
          params: { path: { accountId: account.id } },
          body: { kind, campaignId, adGroupId, limit: 1 },
          signal,
        }),
      ),
    select: (page) => page.rows[0] ?? null,
  });
}

/** What a template makes of clicks on real items; the answer follows what is typed, nothing waits for it. */
export function useTried(template: string | null, scope: Scope) {
  const account = useAccount();
  const asked = useDeferredValue(template);
  return useQuery({
    queryKey: [account.id, 'links', 'try', asked, scope.campaignId, scope.adGroupId],
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      answer(
        api.POST('/api/accounts/{accountId}/links/try', {
          params: { path: { accountId: account.id } },
          body: { template: asked, campaignId: scope.campaignId, adGroupId: scope.adGroupId },
          signal,
        }),
      ),
  });
}

/** What following all links showed, and doing it again. */
export function useLinkChecks() {
  const account = useAccount();
  const queries = useQueryClient();
  const refresh = useRefresh();
  const [jobId, setJobId] = useState<number | null>(null);
  const checks = useQuery({
    queryKey: [account.id, 'links', 'checks'],
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/accounts/{accountId}/links/checks', {
          params: { path: { accountId: account.id } },
          signal,
        }),
      ),
  });
  const { job, isRunning, cancel } = useJob(jobId, (ended) => {
    if (ended.state === 'done') toast(ended.message ?? 'All links were followed.');
    else toast.error(ended.message ?? 'The links could not be followed.');
    void queries.invalidateQueries({ queryKey: [account.id, 'links'] });
    void refresh();
  });
  const begin = async () => {
    try {
      const begun = await answer(
        api.POST('/api/accounts/{accountId}/links/checks', { params: { path: { accountId: account.id } } }),
      );
      setJobId(begun.id);
    } catch (error) {
      tell(error);
    }
  };
  return { checks, job, isRunning, begin: () => void begin(), stop: () => void cancel() };
}

/** Whether links are followed every night, and choosing it. */
export function useNightly() {
  const account = useAccount();
  const queries = useQueryClient();
  const queryKey = [account.id, 'nightlyLinks'];
  const path = { accountId: account.id };
  const chosen = useQuery({
    queryKey,
    queryFn: () => answer(api.GET('/api/accounts/{accountId}/links/nightly', { params: { path } })),
  });
  const choose = useMutation({
    mutationFn: (next: boolean) =>
      answer(
        api.PUT('/api/accounts/{accountId}/links/nightly', { params: { path }, body: { chosen: next } }),
      ),
    onSuccess: (now) => queries.setQueryData(queryKey, now),
    onError: tell,
  });
  return { chosen: chosen.data?.chosen, choose: choose.mutate };
}
