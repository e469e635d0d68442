import { useState, type FormEvent } from 'react';
import { useAccount } from '../../api/account';
import { useCommand } from '../../api/hooks';
import { Button } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { TextField } from '../../ui/Field';
import { count, money, percent } from '../../ui/format';
import type { CampaignBudget, Split } from './useBudgets';

const mostListed = 8;

/** How a campaign's budget is shared among its ad groups. */
export function SpreadPanel({ campaignId, budget }: { campaignId: number; budget: CampaignBudget }) {
  const account = useAccount();
  const [splitting, setSplitting] = useState(false);
  const [all, setAll] = useState(false);
  const { split, groups } = budget;
  const widest = Math.max(1, ...groups.map((group) => group.couldHave));
  const said = groups.filter((group) => group.says !== null);
  return (
    <section className="rounded-lg border border-line bg-sheet p-3" aria-label="Spread inside the campaign">
      <h2 className="text-[14px]">Spread inside the campaign</h2>
      {groups.length === 0 ? (
        <p className="mt-2 text-ink-2">Nobody searched for its ad groups in these weeks.</p>
      ) : (
        <>
          <p className="text-ink-3">
            effective number of groups {count(budget.effectiveNumber)} of {groups.length}
          </p>
          <table className="mt-1.5 w-full table-fixed">
            <thead>
              <tr className="text-[12px] text-ink-3">
                <th scope="col" className="w-[31%] py-0.5 text-left font-semibold">
                  Ad group
                </th>
                <th scope="col" className="text-left font-semibold">
                  Share of cost
                </th>
                <th scope="col" className="w-[9%] text-right font-semibold">
                  Has
                </th>
                <th scope="col" className="w-[16%] text-right font-semibold">
                  Could have
                </th>
                <th scope="col" className="w-[18%] text-right font-semibold">
                  Cost / conv.
                </th>
              </tr>
            </thead>
            <tbody>
              {groups.slice(0, all ? undefined : mostListed).map((group) => (
                <tr key={group.id}>
                  <th scope="row" className="truncate py-0.5 text-left font-normal" title={group.name}>
                    {group.verdict === 'even' ? '' : <span className="mr-1 text-ochre">◆</span>}
                    {group.name}
                  </th>
                  <td>
                    <span aria-hidden className="relative block h-[13px] rounded-sm bg-sunk">
                      <span
                        className="absolute inset-y-0 left-0 rounded-l-sm bg-plum"
                        style={{ width: `${(group.share / widest) * 100}%` }}
                      />
                      <span
                        className="bg-missed absolute inset-y-0"
                        style={{
                          left: `${(group.share / widest) * 100}%`,
                          width: `${((group.couldHave - group.share) / widest) * 100}%`,
                        }}
                      />
                    </span>
                  </td>
                  <td className="text-right">{percent(group.share, 0)}</td>
                  <td className="text-right">{percent(group.couldHave, 0)}</td>
                  <td className="text-right">{money(group.costPerConversion, account)}</td>
                </tr>
              ))}
            </tbody>
          </table>
          {groups.length > mostListed && !all && (
            <Button tone="quiet" className="mt-1" onClick={() => setAll(true)}>
              All {groups.length} ad groups
            </Button>
          )}
          {said.slice(0, 3).map((group) => (
            <p key={group.id} className="mt-1.5 text-ochre">
              <span aria-hidden>◆ </span>
              {group.says}
            </p>
          ))}
          {split && (
            <div className="mt-2">
              <Button onClick={() => setSplitting(true)}>
                Give “{split.adGroup}” a campaign of its own…
              </Button>
            </div>
          )}
        </>
      )}
      {split && splitting && (
        <SplitDialog
          campaignId={campaignId}
          version={budget.version}
          split={split}
          onClose={() => setSplitting(false)}
        />
      )}
    </section>
  );
}

/** What the split makes, with its budgets, before it is done. */
function SplitDialog({
  campaignId,
  version,
  split,
  onClose,
}: {
  campaignId: number;
  version: number;
  split: Split;
  onClose: () => void;
}) {
  const [name, setName] = useState(split.name);
  const [own, setOwn] = useState(split.budget);
  const [rest, setRest] = useState(split.rest);
  const [problem, setProblem] = useState<{ field: string; message: string } | null>(null);
  const run = useCommand({
    onProblem: (told) => setProblem({ field: Object.keys(told.fields)[0] ?? '', message: told.message }),
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (run.isPending) return;
    run.mutate(
      {
        type: 'splitOut',
        campaignId,
        adGroupIds: [split.adGroupId],
        name,
        budget: own,
        rest,
        seen: [{ kind: 'campaign', id: campaignId, version }],
      },
      { onSuccess: onClose },
    );
  };
  const edit = (set: (text: string) => void) => (event: { target: { value: string } }) => {
    setProblem(null);
    set(event.target.value);
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title={`A campaign of its own for “${split.adGroup}”`}
      description="The ad group goes there with its keywords, ads, negatives and extensions, and with all settings of the campaign. On the network it begins anew: its history stays behind."
    >
      <form onSubmit={submit} className="space-y-3">
        <TextField
          label="Name of the new campaign"
          value={name}
          problem={problem?.field === 'name' ? problem.message : null}
          onChange={edit(setName)}
        />
        <div className="flex gap-3">
          <TextField
            label="Its daily budget"
            inputMode="decimal"
            value={own}
            problem={problem?.field === 'budget' ? problem.message : null}
            hint="what its searches cost"
            onChange={edit(setOwn)}
          />
          <TextField
            label="What the rest keeps"
            inputMode="decimal"
            value={rest}
            problem={problem?.field === 'rest' ? problem.message : null}
            onChange={edit(setRest)}
          />
        </div>
        {problem && !['name', 'budget', 'rest'].includes(problem.field) && (
          <p role="alert" className="text-brick">
            {problem.message}
          </p>
        )}
        <p className="text-ink-2">
          With these budgets about {count(split.gain.likely)} conversions more in a week are likely, nine
          times in ten between {count(split.gain.low)} and {count(split.gain.high)}.
        </p>
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Leave</Button>
          <Button type="submit" tone="ember">
            Split it out
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
