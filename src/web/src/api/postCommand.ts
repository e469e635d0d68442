import { answer, api, type Command } from './client';
import { sendNamed } from './waiting';

/** Runs a command; where the answer is lost on its way, asks what became of it as soon as the server is back. */
export async function postCommand(accountId: number, command: Command, preview: boolean, stop?: AbortSignal) {
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
