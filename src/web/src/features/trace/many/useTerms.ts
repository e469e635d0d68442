import { useMutation } from '@tanstack/react-query';
import { keepFile } from '../../../files/keepFile';
import { useAccount } from '../../../api/account';
import { problemOf, requestToken, type Schemas } from '../../../api/client';
import type { Question } from '../question';

/** A list of searches as it was pasted or chosen, and in which circumstances they are made. */
export interface Terms extends Pick<Question, 'device' | 'site'> {
  content: Blob;
  name: string;
}

/** Sends a list as it is: the server reads it, whatever its form. */
export function useTerms() {
  const account = useAccount();
  const send = async ({ content, device, site }: Terms, to: 'terms' | 'terms/file') => {
    const response = await fetch(
      `/api/accounts/${account.id}/trace/${to}?${new URLSearchParams({ device, site }).toString()}`,
      {
        method: 'POST',
        body: content,
        headers: { 'Content-Type': 'application/octet-stream', 'X-Fendrik-Token': requestToken() },
      },
    );
    if (response.ok) return response;
    const body: unknown = await response.json().catch(() => null);
    throw problemOf(response.status, body);
  };
  const count = useMutation({
    mutationFn: async (terms: Terms) =>
      (await send(terms, 'terms')).json() as Promise<Schemas['TracedTerms']>,
  });
  const file = useMutation({
    mutationFn: async (terms: Terms) => {
      keepFile(await (await send(terms, 'terms/file')).blob(), 'traced searches.csv');
    },
  });
  return { count, file };
}
