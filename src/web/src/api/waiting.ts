import { toast } from 'sonner';
import { answer, api, ApiProblem, type Schemas } from './client';
import { newRequestId, whatBecameOf } from './lostAnswers';

const patience = 1_200;
const lookAgainAfter = 1_000;

/** Who is ahead, in a sentence. */
export function aheadInWords(ahead: readonly Schemas['AheadInQueue'][]): string {
  const first = ahead[0];
  if (!first) return '';
  const others = ahead.length - 1;
  return `Waiting: ${first.person ?? 'Fendrik itself'} is ${first.doing}${
    others > 0 ? `, and ${others} more before you` : ''
  }.`;
}

/** While a request waits for somebody else's work on the account: says whose, and offers to give up. */
function tellWhileWaiting(accountId: number, requestId: string, giveUp: () => void) {
  let told: string | number | undefined;
  let over = false;
  const look = async () => {
    let ahead: readonly Schemas['AheadInQueue'][] = [];
    try {
      ahead = await answer(
        api.GET('/api/accounts/{accountId}/commands/{requestId}/ahead', {
          params: { path: { accountId, requestId } },
        }),
      );
    } catch {
      // The request itself says what is wrong.
    }
    if (over) return;
    if (ahead.length > 0)
      told = toast.loading(aheadInWords(ahead), {
        id: requestId,
        action: { label: 'Give up', onClick: giveUp },
      });
    else if (told !== undefined) toast.dismiss(told);
    timer = setTimeout(() => void look(), lookAgainAfter);
  };
  let timer = setTimeout(() => void look(), patience);
  return () => {
    over = true;
    clearTimeout(timer);
    if (told !== undefined) toast.dismiss(told);
  };
}

const lastOf = new Map<number, Promise<unknown>>();

/** Sends what this page does to an account in the order in which it was done: an undo goes out after the edit that it takes back. */
function inOrder<T>(accountId: number, send: () => Promise<T>): Promise<T> {
  const before = lastOf.get(accountId);
  const sent = before ? before.then(send, send) : send();
  lastOf.set(accountId, sent);
  return sent;
}

/**
 * Sends a request under a name, so that it can be asked about: whose work it waits for, and what became of it when its answer is lost
 * on the way. It can be given up while it waits.
 */
export function sendNamed(
  accountId: number,
  send: (requestId: string, signal: AbortSignal) => Promise<Schemas['CommandAnswer']>,
): Promise<Schemas['CommandAnswer']> {
  return inOrder(accountId, () => sendOne(accountId, send));
}

async function sendOne(
  accountId: number,
  send: (requestId: string, signal: AbortSignal) => Promise<Schemas['CommandAnswer']>,
): Promise<Schemas['CommandAnswer']> {
  const requestId = newRequestId();
  const stop = new AbortController();
  const waitingIsOver = tellWhileWaiting(accountId, requestId, () => stop.abort());
  try {
    return await send(requestId, stop.signal);
  } catch (error) {
    if (!(error instanceof ApiProblem) || error.status !== 0) throw error;
    return await whatBecameOf(accountId, requestId, stop.signal.aborted);
  } finally {
    waitingIsOver();
  }
}
