import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useAccount } from '../../api/account';
import { answer, api, type Schemas } from '../../api/client';
import { asQuery, type Scope } from '../../app/scope';

export type TermPage = Schemas['TermPage'];
export type SearchTerm = Schemas['SearchTerm'];
export type TermRequest = Required<Schemas['TermRequest']>;
export type TermWord = Schemas['TermWord'];
export type TermsProposal = Schemas['TermsProposal'];
export type Outlook = Schemas['NegativeOutlook'];
export type Places = Schemas['ItemPlaces'];

export const rowsOfPage = 100;

/** A page of what people typed; null before anything was reported. */
export function useTerms(request: TermRequest) {
  const account = useAccount();
  return useQuery({
    queryKey: [account.id, 'terms', request],
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: async ({ signal }) =>
      (await answer(
        api.POST('/api/accounts/{accountId}/terms', {
          params: { path: { accountId: account.id } },
          body: request,
          signal,
        }),
      )) ?? null,
  });
}

/** The dearest words, pairs or threes of all terms. */
export function useTermWords(scope: Scope, weeks: number, size: number, unsold: boolean) {
  const account = useAccount();
  return useQuery({
    queryKey: [account.id, 'terms', 'words', scope, weeks, size, unsold],
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/accounts/{accountId}/terms/words', {
          params: { path: { accountId: account.id }, query: { weeks, size, unsold, ...asQuery(scope) } },
          signal,
        }),
      ),
  });
}

/** What could become of terms. */
export function useProposal(terms: readonly string[], weeks: number) {
  const account = useAccount();
  return useQuery({
    queryKey: [account.id, 'terms', 'proposal', terms, weeks],
    enabled: terms.length > 0,
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: ({ signal }) =>
      answer(
        api.POST('/api/accounts/{accountId}/terms/proposal', {
          params: { path: { accountId: account.id } },
          body: { weeks, terms: [...terms] },
          signal,
        }),
      ),
  });
}

/** Asks what negatives would have done. */
export function useForecast() {
  const account = useAccount();
  return (weeks: number, lines: string, match: Schemas['MatchType'], places: Places, signal: AbortSignal) =>
    answer(
      api.POST('/api/accounts/{accountId}/terms/negatives', {
        params: { path: { accountId: account.id } },
        body: { weeks, lines, match, places },
        signal,
      }),
    );
}
