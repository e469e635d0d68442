import { answer, api, type Command } from './client';
import { sendNamed } from './waiting';

/**
 * Runs a command; where the answer is lost on its way, asks what became of it as soon as the server is back. In a variant it is
 * proposed: said twice, that changes nothing.
 */
export async function postCommand(
  accountId: number,
  command: Command,
  preview: boolean,
  variant: number | null,
  stop?: AbortSignal,
) {
  if (variant !== null)
    return answer(
      api.POST('/api/accounts/{accountId}/looks/{lookId}/proposals', {
        params: { path: { accountId, lookId: variant }, query: { preview } },
        body: command,
        signal: stop,
      }),
    );
  const post = (requestId: string | null, signal?: AbortSignal) =>
    answer(
      api.POST('/api/accounts/{accountId}/commands', {
        params: {
          path: { accountId },
          query: { preview },
          header: requestId === null ? {} : { 'X-Fendrik-Request': requestId },
        },
        body: command,
        signal,
      }),
    );
  return preview ? post(null, stop) : sendNamed(accountId, post);
}
