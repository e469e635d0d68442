import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useAccount } from '../../api/account';
import { answer, api, type Schemas } from '../../api/client';

export type Segments = Schemas['SegmentsAnswer'];
export type SegmentRow = Schemas['SegmentRow'];

/** All campaigns with how much there is to say of their segments. */
export function useSegmentedCampaigns(weeks: number, enabled: boolean) {
  const account = useAccount();
  return useQuery({
    queryKey: [account.id, 'bids', 'campaigns', weeks],
    enabled,
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/accounts/{accountId}/bids/campaigns', {
          params: { path: { accountId: account.id }, query: { weeks } },
          signal,
        }),
      ),
  });
}

export interface Rule {
  half: number;
  nineTenths: number;
  never: number;
}

/** What the segments of a campaign brought, and what follows. */
export function useSegments(campaignId: number | null, weeks: number, rule: Rule) {
  const account = useAccount();
  return useQuery({
    queryKey: [account.id, 'bids', campaignId, weeks, rule],
    enabled: campaignId !== null,
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/accounts/{accountId}/bids/campaigns/{campaignId}', {
          params: {
            path: { accountId: account.id, campaignId: campaignId ?? 0 },
            query: { weeks, ...rule },
          },
          signal,
        }),
      ),
  });
}

export type Strategy = Schemas['StrategyAnswer'];
export type StrategyWish = Record<
  'strategy' | 'targetCpa' | 'targetRoas' | 'lowestBid' | 'highestBid',
  string
>;

/** A campaign with a strategy that is thought of; without one, that of the working copy. */
export function useStrategy(
  campaignId: number | null,
  wish: StrategyWish | null,
  months: number,
  weeks: number,
) {
  const account = useAccount();
  return useQuery({
    queryKey: [account.id, 'bids', 'strategy', campaignId, wish, months, weeks],
    enabled: campaignId !== null,
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/accounts/{accountId}/bids/campaigns/{campaignId}/strategy', {
          params: {
            path: { accountId: account.id, campaignId: campaignId ?? 0 },
            query: { ...wish, months, weeks },
          },
          signal,
        }),
      ),
  });
}

export type KeywordBids = Schemas['KeywordBids'];
export type KeywordBid = Schemas['KeywordBidRow'];
export type ProposedBid = Schemas['ProposedBid'];

/** Keywords of a campaign with what they bid. */
export function useKeywordBids(campaignId: number | null, adGroupId: number | null, weeks: number) {
  const account = useAccount();
  return useQuery({
    queryKey: [account.id, 'bids', 'keywords', campaignId, adGroupId, weeks],
    enabled: campaignId !== null,
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/accounts/{accountId}/bids/campaigns/{campaignId}/keywords', {
          params: {
            path: { accountId: account.id, campaignId: campaignId ?? 0 },
            query: { adGroupId: adGroupId ?? undefined, weeks },
          },
          signal,
        }),
      ),
  });
}

export type Estimates = Schemas['EstimatesAnswer'];
export type EstimateLine = Schemas['EstimateLine'];
export type WeekLine = Schemas['WeekLine'];

/** Estimates of a campaign, and over the bid of one keyword or of all. */
export function useEstimates(
  campaignId: number | null,
  adGroupId: number | null,
  keywordId: number | null,
  change: string,
) {
  const account = useAccount();
  return useQuery({
    queryKey: [account.id, 'bids', 'estimates', campaignId, adGroupId, keywordId, change],
    enabled: campaignId !== null,
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/accounts/{accountId}/bids/campaigns/{campaignId}/estimates', {
          params: {
            path: { accountId: account.id, campaignId: campaignId ?? 0 },
            query: {
              adGroupId: adGroupId ?? undefined,
              keywordId: keywordId ?? undefined,
              change: change.trim() || undefined,
            },
          },
          signal,
        }),
      ),
  });
}

export const weekChoices = [4, 8, 13, 26, 52].map((weeks) => ({
  value: String(weeks),
  label: `Last ${weeks} weeks`,
}));
