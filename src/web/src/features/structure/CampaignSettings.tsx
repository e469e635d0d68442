import { useState } from 'react';
import type { SheetRow } from '../../api/client';
import { useCommand } from '../../api/hooks';
import { CheckField, TextField } from '../../ui/Field';
import { Panel } from '../../ui/Panel';

const places = [
  { name: 'search', label: 'Search' },
  { name: 'partners', label: 'Partner sites' },
  { name: 'content', label: 'Content sites' },
];

/** Where and when one campaign runs. Each edit is kept at once. */
export function CampaignSettings({ row }: { row: SheetRow }) {
  const [problem, setProblem] = useState<{ field: string; text: string } | null>(null);
  const run = useCommand({
    onProblem: (told) => setProblem({ field: Object.keys(told.fields)[0] ?? '', text: told.message }),
  });
  const now = (row.networks ?? '').split(', ').filter((name) => name && name !== 'none');
  const set = (next: { networks?: string[]; startDate?: string | null; endDate?: string | null }) => {
    setProblem(null);
    run.mutate({
      type: 'setCampaignSettings',
      campaignId: row.id,
      networks: next.networks ?? now,
      startDate: next.startDate === undefined ? (row.startDate ?? null) : next.startDate,
      endDate: next.endDate === undefined ? (row.endDate ?? null) : next.endDate,
    });
  };
  const problemOf = (field: string) => (problem?.field === field ? problem.text : null);
  return (
    <Panel title="Shows on, from, until">
      <div className="mb-2 space-y-1">
        {places.map(({ name, label }) => (
          <CheckField
            key={name}
            label={label}
            checked={now.includes(name)}
            onChange={(checked) =>
              set({ networks: checked ? [...now, name] : now.filter((each) => each !== name) })
            }
          />
        ))}
        {problemOf('networks') && <div className="text-[12px] text-brick">{problemOf('networks')}</div>}
      </div>
      <div className="grid grid-cols-2 gap-2">
        <TextField
          label="Start date"
          type="date"
          defaultValue={row.startDate ?? ''}
          problem={problemOf('startDate')}
          onBlur={(event) =>
            event.target.value !== (row.startDate ?? '') && set({ startDate: event.target.value || null })
          }
        />
        <TextField
          label="End date"
          type="date"
          defaultValue={row.endDate ?? ''}
          hint="Empty: open"
          problem={problemOf('endDate')}
          onBlur={(event) =>
            event.target.value !== (row.endDate ?? '') && set({ endDate: event.target.value || null })
          }
        />
      </div>
    </Panel>
  );
}
