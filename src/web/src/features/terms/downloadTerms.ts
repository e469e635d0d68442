import { answer, api } from '../../api/client';
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
  const link = document.createElement('a');
  link.href = URL.createObjectURL(file as Blob);
  link.download = 'search terms.csv';
  link.click();
  URL.revokeObjectURL(link.href);
}
