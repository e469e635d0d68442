import { answer, api, ApiProblem, type Command } from './client';
import { newRequestId, whatBecameOf } from './lostAnswers';

/** Runs a command; where the answer is lost on its way, asks what became of it as soon as the server is back. */
export async function postCommand(accountId: number, command: Command, preview: boolean) {
  const requestId = newRequestId();
  try {
    return await answer(
      api.POST('/api/accounts/{accountId}/commands', {
        params: { path: { accountId }, query: { preview }, header: { 'X-Fendrik-Request': requestId } },
        body: command,
      }),
    );
  } catch (error) {
    if (preview || !(error instanceof ApiProblem) || error.status !== 0) throw error;
    return await whatBecameOf(accountId, requestId);
  }
}
