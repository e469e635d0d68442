import { toast } from 'sonner';
import { answer, api, ApiProblem, problemOf, type Schemas } from './client';

const askAgainAfter = 1_000;
const askAtMost = 180;

/** A name for a request, so that it can be asked about afterwards. */
export function newRequestId(): string {
  // randomUUID is there only on https and on this machine; random bytes are everywhere.
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  bytes[6] = ((bytes[6] ?? 0) & 0x0f) | 0x40;
  bytes[8] = ((bytes[8] ?? 0) & 0x3f) | 0x80;
  const hex = [...bytes].map((byte) => byte.toString(16).padStart(2, '0')).join('');
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-${hex.slice(12, 16)}-${hex.slice(16, 20)}-${hex.slice(20)}`;
}

/**
 * What became of a command whose answer was lost because the server or the connection went away: all of it was done or
 * nothing. Asks until the server is back.
 */
export async function whatBecameOf(
  accountId: number,
  requestId: string,
  givenUp = false,
  pause = askAgainAfter,
): Promise<Schemas['CommandAnswer']> {
  const waiting = toast.loading(
    givenUp ? 'Giving up…' : 'Fendrik does not answer. Waiting for it to come back…',
  );
  try {
    for (let asked = 0; asked < askAtMost; asked++) {
      if (!givenUp || asked > 0) await new Promise((resolve) => setTimeout(resolve, pause));
      try {
        return await answer(
          api.GET('/api/accounts/{accountId}/commands/{requestId}', {
            params: { path: { accountId, requestId } },
          }),
        );
      } catch (error) {
        if (!(error instanceof ApiProblem)) throw error;
        if (error.status === 404)
          throw new ApiProblem(
            404,
            givenUp
              ? 'Given up. Nothing was changed.'
              : 'Fendrik was stopped before this was done. Nothing was changed; do it again.',
            {},
          );
        if (error.status !== 0 && error.status < 502) throw error;
      }
    }
    throw problemOf(0, null);
  } finally {
    toast.dismiss(waiting);
  }
}
