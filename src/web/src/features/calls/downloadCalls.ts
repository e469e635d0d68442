import { answer, api } from '../../api/client';
import { keepFile } from '../../files/keepFile';
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
  keepFile(file as Blob, 'calls.csv');
}
