import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { answer, api, type Schemas } from '../../api/client';
import { useAccount } from '../../api/account';
import { moment, plural } from '../../ui/format';
import { ChangeLines } from '../../ui/ChangeLines';
import { Choice } from '../../ui/Choice';
import { Dialog } from '../../ui/Dialog';

interface Props {
  entries: readonly Schemas['HistoryEntry'][];
  step: Schemas['HistoryEntry'];
  onClose: () => void;
}

const longestLabel = 60;
const shortened = (label: string) =>
  label.length > longestLabel ? `${label.slice(0, longestLabel)}…` : label;

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
  const moments = [
    ...entries.map((entry) => ({
      value: String(entry.id),
      label: `${moment(entry.madeAt)} · ${shortened(entry.label)}`,
    })),
    { value: '0', label: 'the beginning' },
  ];
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title="Compare two moments"
      description={comparison.data && `${plural(comparison.data.total, 'item')} differ.`}
    >
      <div className="mb-3 flex items-center gap-2">
        <Choice
          label="Right after"
          className="min-w-0 flex-1"
          value={String(from)}
          options={moments}
          onChange={(next) => setFrom(Number(next))}
        />
        <span className="text-ink-3">and</span>
        <Choice
          label="and right after"
          className="min-w-0 flex-1"
          value={String(to)}
          options={moments}
          onChange={(next) => setTo(Number(next))}
        />
      </div>
      {comparison.isError && (
        <p role="alert" className="text-brick">
          {comparison.error.message}
        </p>
      )}
      {comparison.data && <ChangeLines lines={comparison.data.lines} showPlace />}
      {comparison.data && comparison.data.total > comparison.data.lines.length && (
        <p className="py-2 text-ink-3">and {comparison.data.total - comparison.data.lines.length} more</p>
      )}
    </Dialog>
  );
}
