import { useState, type FormEvent } from 'react';
import { useCommand } from '../../api/hooks';
import { Button } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { TextField } from '../../ui/Field';
import { count, percent, plural } from '../../ui/format';
import { Tick } from '../../ui/Tick';
import type { Hours } from './useHours';

interface Props {
  hours: Hours;
  chosen: readonly number[];
  onChoose: (campaigns: number[]) => void;
}

/** All campaigns with their hours: those that are ticked get what is set above, or the hours of the first. */
export function HoursCampaigns({ hours, chosen, onChoose }: Props) {
  const run = useCommand();
  const shown = hours.campaigns.find((campaign) => campaign.id === hours.chosen[0]);
  const others = hours.campaigns.filter(
    (campaign) => chosen.includes(campaign.id) && campaign.id !== shown?.id && !campaign.isLikeShown,
  );
  return (
    <section aria-labelledby="hours-campaigns" className="rounded-lg border border-line bg-sheet">
      <div className="flex items-center gap-2 border-b border-line px-3 py-1.5">
        <h2 id="hours-campaigns" className="text-[14px]">
          Campaigns
        </h2>
        <span className="text-ink-3">what is set above holds for those that are ticked</span>
        <span className="ml-auto flex gap-1.5">
          {shown && others.length > 0 && (
            <Button
              tone="ember"
              onClick={() => {
                if (run.isPending) return;
                run.mutate({
                  type: 'setFields',
                  items: others.map((campaign) => ({ kind: 'campaign', id: campaign.id })),
                  values: { hours: shown.plan ?? '' },
                  // What a colleague set meanwhile is told, not overwritten.
                  seen: [shown, ...others].map(({ id, version }) => ({ kind: 'campaign', id, version })),
                });
              }}
            >
              Give {plural(others.length, 'campaign')} the hours of “{shown.name}”
            </Button>
          )}
        </span>
      </div>
      <table className="w-full border-collapse">
        <thead className="sr-only">
          <tr>
            <th>Campaign</th>
            <th>Hours a week</th>
            <th>Hours</th>
          </tr>
        </thead>
        <tbody>
          {hours.campaigns.map((campaign) => (
            <tr key={campaign.id} className="border-b border-line-soft last:border-0">
              <th
                scope="row"
                className="flex items-center px-3 py-1 text-left font-semibold whitespace-nowrap"
              >
                <Tick
                  label={`Choose ${campaign.name}`}
                  checked={chosen.includes(campaign.id)}
                  onChange={(on) =>
                    onChoose(on ? [...chosen, campaign.id] : chosen.filter((id) => id !== campaign.id))
                  }
                />
                <span className={campaign.isPaused ? 'ml-2 text-ink-3' : 'ml-2'}>
                  {campaign.isPaused ? '○ ' : ''}
                  {campaign.name}
                </span>
              </th>
              <td className="w-[150px] px-2 text-right whitespace-nowrap text-ink-2">
                {count(campaign.hours)} h · {percent(campaign.share, 1)}
              </td>
              <td className="px-3 text-ink-2">
                {campaign.plan ?? 'always'}
                {campaign.isLikeShown && campaign.id !== shown?.id && chosen.includes(campaign.id) && (
                  <span className="ml-1 text-ink-3">· alike</span>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

/** When somebody takes calls, kept once for the account. */
export function AnsweringDialog({ hours, onClose }: { hours: Hours; onClose: () => void }) {
  const [text, setText] = useState(hours.answeringHours ?? '');
  const [problem, setProblem] = useState<string | null>(null);
  const run = useCommand({ onProblem: (told) => setProblem(told.message) });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (run.isPending) return;
    run.mutate(
      {
        type: 'setFields',
        items: [{ kind: 'account', id: hours.accountItemId }],
        values: { answeringHours: text },
        seen: [{ kind: 'account', id: hours.accountItemId, version: hours.accountVersion }],
      },
      { onSuccess: onClose },
    );
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title="Answering hours"
      description="When somebody takes calls, on the account’s clock. Campaigns and numbers are held against them."
    >
      <form onSubmit={submit} className="space-y-3">
        <TextField
          label="Answering hours"
          value={text}
          placeholder="Mon-Fri 08:00-17:30; Sat 09:00-12:00"
          problem={problem}
          hint="Several with ; between. Empty: not known."
          onChange={(event) => {
            setProblem(null);
            setText(event.target.value);
          }}
        />
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Leave</Button>
          <Button type="submit" tone="ember">
            Keep
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
