import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useAccount } from '../../api/account';
import { answer, api, type Schemas } from '../../api/client';

export type WeekHour = Schemas['WeekHour'];
export type Hours = Schemas['HoursAnswer'];
export type WeekSpan = Schemas['WeekSpan'];

/** The week of some campaigns, or of all, with what it brought. */
export function useHours(campaigns: readonly number[], weeks: number) {
  const account = useAccount();
  return useQuery({
    queryKey: [account.id, 'hours', campaigns, weeks],
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      answer(
        api.POST('/api/accounts/{accountId}/hours', {
          params: { path: { accountId: account.id } },
          body: { campaigns: [...campaigns], weeks },
          signal,
        }),
      ),
  });
}

/** What is known of a part of the week, and what a modifier that is thought of would make of bids. */
export function usePartOfWeek(
  campaigns: readonly number[],
  weeks: number,
  spans: readonly WeekSpan[],
  modifier: string,
) {
  const account = useAccount();
  return useQuery({
    queryKey: [account.id, 'hours', 'part', campaigns, weeks, spans, modifier],
    enabled: spans.length > 0 && campaigns.length > 0,
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: ({ signal }) =>
      answer(
        api.POST('/api/accounts/{accountId}/hours/part', {
          params: { path: { accountId: account.id } },
          body: {
            campaigns: [...campaigns],
            weeks,
            spans: [...spans],
            modifier: modifier || null,
            target: null,
          },
          signal,
        }),
      ),
  });
}
