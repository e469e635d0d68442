import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { answer, api, type Schemas } from '../../api/client';
import { useAccount } from '../../api/account';
import { moment, plural } from '../../ui/format';
import { ChangeLines } from '../../ui/ChangeLines';
import { Dialog } from '../../ui/Dialog';

interface Props {
  entries: readonly Schemas['HistoryEntry'][];
  step: Schemas['HistoryEntry'];
  onClose: () => void;
}

/** What differs between two moments of the working copy, whatever happened in between. */
export function CompareDialog({ entries, step, onClose }: Props) {
  const account = useAccount();
  const newest = entries[0]?.id ?? step.id;
  const [from, setFrom] = useState(step.id === newest ? (entries[1]?.id ?? 0) : step.id);
  const [to, setTo] = useState(newest);
  const comparison = useQuery({
    queryKey: [account.id, 'step', 'compare', from, to],
    queryFn: () =>
      answer(
        api.GET('/api/accounts/{accountId}/history/compare', {
          params: { path: { accountId: account.id }, query: { from, to } },
        }),
      ),
  });
  const moments = (
    <>
      {entries.map((entry) => (
        <option key={entry.id} value={entry.id}>
          {moment(entry.madeAt)} · {entry.label}
        </option>
      ))}
      <option value={0}>the beginning</option>
    </>
  );
  const look = 'min-w-0 flex-1 rounded-sm border border-line-strong bg-sheet px-2 py-1';
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title="Compare two moments"
      description={comparison.data && `${plural(comparison.data.total, 'item')} differ.`}
    >
      <div className="mb-3 flex items-center gap-2">
        <select
          aria-label="Right after"
          className={look}
          value={from}
          onChange={(event) => setFrom(Number(event.target.value))}
        >
          {moments}
        </select>
        <span className="text-ink-3">and</span>
        <select
          aria-label="and right after"
          className={look}
          value={to}
          onChange={(event) => setTo(Number(event.target.value))}
        >
          {moments}
        </select>
      </div>
      {comparison.isError && <p className="text-brick">{comparison.error.message}</p>}
      {comparison.data && <ChangeLines lines={comparison.data.lines} />}
      {comparison.data && comparison.data.total > comparison.data.lines.length && (
        <p className="py-2 text-ink-3">and {comparison.data.total - comparison.data.lines.length} more</p>
      )}
    </Dialog>
  );
}
