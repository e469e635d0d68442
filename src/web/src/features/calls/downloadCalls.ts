import { answer, api } from '../../api/client';
import type { CallRequest } from './useCalls';

/** Fetches the calls of a period as a file, and gives it to the browser to keep. */
export async function downloadCalls(accountId: number, request: CallRequest): Promise<void> {
  const file: unknown = await answer(
    api.GET('/api/accounts/{accountId}/calls/file', {
      params: {
        path: { accountId },
        query: {
          weeks: request.weeks,
          campaignId: request.campaignId ?? undefined,
          adGroupId: request.adGroupId ?? undefined,
          onceEach: request.onceEach,
        },
      },
      parseAs: 'blob',
    }),
  );
  const link = document.createElement('a');
  link.href = URL.createObjectURL(file as Blob);
  link.download = 'calls.csv';
  link.click();
  URL.revokeObjectURL(link.href);
}
