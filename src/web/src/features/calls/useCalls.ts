import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useAccount } from '../../api/account';
import { answer, api, type Schemas } from '../../api/client';

export type Calls = Schemas['CallsAnswer'];
export type Call = Schemas['CallAnswer'];
export type CallTotals = Schemas['CallTotals'];
export type CallGroup = Schemas['CallGroup'];
/** By what calls are told apart. */
export type Grouping = 'call' | 'campaign' | 'keyword' | 'hour' | 'area' | 'number';

export const rowsOfPage = 100;

export interface CallRequest {
  weeks: number;
  campaignId: number | null;
  adGroupId: number | null;
  by: Grouping;
  days: 'weekdays' | 'weekend';
  onceEach: boolean;
  offset: number;
}

/** The calls that ads brought. */
export function useCalls(request: CallRequest) {
  const account = useAccount();
  return useQuery({
    queryKey: [account.id, 'calls', request],
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/accounts/{accountId}/calls', {
          params: {
            path: { accountId: account.id },
            query: {
              ...request,
              campaignId: request.campaignId ?? undefined,
              adGroupId: request.adGroupId ?? undefined,
            },
          },
          signal,
        }),
      ),
  });
}
