import { answer, api } from '../../api/client';
import { keepFile } from '../../files/keepFile';
import type { TermRequest } from './useTerms';

/** Fetches all terms of a filter as a file, and gives it to the browser to keep. */
export async function downloadTerms(accountId: number, request: TermRequest): Promise<void> {
  const file: unknown = await answer(
    api.POST('/api/accounts/{accountId}/terms/file', {
      params: { path: { accountId } },
      body: request,
      parseAs: 'blob',
    }),
  );
  keepFile(file as Blob, 'search terms.csv');
}
