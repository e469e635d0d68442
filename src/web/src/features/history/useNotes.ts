import { useQuery } from '@tanstack/react-query';
import { useAccount } from '../../api/account';
import { answer, api, type Schemas } from '../../api/client';

export type Note = Schemas['KeptNote'];
type Step = Schemas['HistoryEntry'];

/** A line of the history: a step, or a note at the day that it is about. */
export type HistoryRow =
  { key: string; step: Step; note?: undefined } | { key: string; step?: undefined; note: Note };

/** What was agreed about the account, the latest day first. */
export function useNotes() {
  const account = useAccount();
  return useQuery({
    queryKey: [account.id, 'notes'],
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/accounts/{accountId}/notes', { params: { path: { accountId: account.id } }, signal }),
      ),
  });
}

/** Notes among the steps: above those of their day and before. What is older than the last step that is shown waits for the older ones. */
export function inLine(steps: readonly Step[], notes: readonly Note[], hasOlder: boolean): HistoryRow[] {
  const rows: HistoryRow[] = [];
  let next = 0;
  const put = (until: string | null) => {
    for (let note = notes[next]; note && (until === null || note.day >= until); note = notes[++next])
      rows.push({ key: `note${note.id}`, note });
  };
  for (const step of steps) {
    put(step.madeAt.slice(0, 10));
    rows.push({ key: `step${step.id}`, step });
  }
  if (!hasOlder) put(null);
  return rows;
}
