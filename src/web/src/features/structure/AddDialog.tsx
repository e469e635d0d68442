import { useState, type FormEvent } from 'react';
import type { Command, MatchType } from '../../api/client';
import { useAdGroups, useCampaigns, useCommand } from '../../api/hooks';
import { useAccount } from '../../app/account';
import { matchNames } from '../../app/format';
import { useScope } from '../../app/scope';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Dialog } from '../../ui/Dialog';
import { TextArea, TextField } from '../../ui/Field';

export type Addition = 'campaign' | 'adGroup' | 'keywords' | 'negatives' | 'ad';

const titles: Record<Exclude<Addition, 'ad'>, string> = {
  campaign: 'Add a campaign',
  adGroup: 'Add an ad group',
  keywords: 'Add keywords',
  negatives: 'Add negatives',
};

interface Props {
  what: Exclude<Addition, 'ad'>;
  place: { campaignId: number | null; adGroupId: number | null };
  onClose: () => void;
}

const matches = Object.entries(matchNames).map(([value, label]) => ({ value: value as MatchType, label }));
const wholeCampaign = 'campaign';

/** Adds a campaign, an ad group, keywords or negatives. */
export function AddDialog({ what, place, onClose }: Props) {
  const account = useAccount();
  const scope = useScope();
  const campaigns = useCampaigns();
  const [campaign, setCampaign] = useState(place.campaignId ?? scope.campaignId);
  const campaignId = campaign ?? campaigns.data?.[0]?.id ?? null;
  const adGroups = useAdGroups(campaignId);
  const [group, setGroup] = useState<number | null>(place.adGroupId ?? scope.adGroupId);
  const adGroupId = adGroups.data?.some((each) => each.id === group)
    ? group
    : what === 'keywords'
      ? (adGroups.data?.[0]?.id ?? null)
      : null;
  const [name, setName] = useState('');
  const [lines, setLines] = useState('');
  const [amount, setAmount] = useState('');
  const [match, setMatch] = useState<MatchType>('phrase');
  const [problems, setProblems] = useState<Record<string, string>>({});
  const run = useCommand({
    onProblem: (told) => {
      const field = Object.keys(told.fields)[0] ?? 'other';
      setProblems({ [field === 'text' && what === 'campaign' ? 'name' : field]: told.message });
    },
  });

  const submit = (event: FormEvent) => {
    event.preventDefault();
    const value = amount.trim() === '' ? null : Number(amount.replace(',', '.'));
    if (value !== null && !Number.isFinite(value)) {
      setProblems({ amount: 'Write the amount like 1.20.' });
      return;
    }
    const command = commandOf(value);
    if (command) run.mutate(command, { onSuccess: onClose });
  };
  const commandOf = (value: number | null): Command | null => {
    switch (what) {
      case 'campaign':
        return { type: 'addCampaign', name, dailyBudget: value };
      case 'adGroup':
        return campaignId === null ? null : { type: 'addAdGroup', campaignId, name, maxCpc: value };
      default:
        return campaignId === null
          ? null
          : {
              type: 'addWords',
              campaignId,
              adGroupId,
              lines,
              match,
              negative: what === 'negatives',
              maxCpc: value,
            };
    }
  };
  const words = what === 'keywords' || what === 'negatives';
  const missing =
    what !== 'campaign' && campaignId === null
      ? 'campaign'
      : what === 'keywords' && adGroupId === null
        ? 'ad group'
        : null;
  const amountProblem = problems.amount ?? problems.maxCpc ?? problems.dailyBudget;
  return (
    <Dialog open onClose={onClose} title={titles[what]}>
      <form className="space-y-3" onSubmit={submit}>
        {what !== 'campaign' && campaigns.data && campaignId !== null && (
          <div className="flex flex-wrap gap-2">
            <Choice
              label="Campaign"
              value={String(campaignId)}
              options={campaigns.data.map((each) => ({ value: String(each.id), label: each.name }))}
              onChange={(id) => setCampaign(Number(id))}
            />
            {words && adGroups.data && (what === 'negatives' || adGroupId !== null) && (
              <Choice
                label="Ad group"
                value={adGroupId === null ? wholeCampaign : String(adGroupId)}
                options={[
                  ...(what === 'negatives' ? [{ value: wholeCampaign, label: 'the whole campaign' }] : []),
                  ...adGroups.data.map((each) => ({ value: String(each.id), label: each.name })),
                ]}
                onChange={(id) => setGroup(id === wholeCampaign ? null : Number(id))}
              />
            )}
          </div>
        )}
        {missing && <p className="text-ochre">There is no {missing} yet. Add one first.</p>}
        {words ? (
          <>
            <TextArea
              label="One on each line"
              rows={7}
              autoFocus
              value={lines}
              problem={problems.lines}
              hint={
                '[exact], "phrase" and +all +words are understood; bare words become what is chosen below.'
              }
              onChange={(event) => setLines(event.target.value)}
            />
            <div className="flex items-center gap-2">
              Bare words are{' '}
              <Choice label="Match type of bare words" value={match} options={matches} onChange={setMatch} />
            </div>
          </>
        ) : (
          <TextField
            label="Name"
            autoFocus
            value={name}
            problem={problems.name ?? problems.text}
            onChange={(event) => setName(event.target.value)}
          />
        )}
        {what !== 'negatives' && (
          <TextField
            label={what === 'campaign' ? 'Daily budget' : 'Max CPC'}
            before={account.currencySign.trim()}
            inputMode="decimal"
            className="w-40"
            value={amount}
            problem={amountProblem}
            hint={what === 'keywords' ? 'Empty: the ad group’s' : undefined}
            onChange={(event) => setAmount(event.target.value)}
          />
        )}
        {problems.campaignId && <p className="text-brick">{problems.campaignId}</p>}
        <div className="flex justify-end gap-2 pt-1">
          <Button onClick={onClose}>Leave</Button>
          <Button
            type="submit"
            tone="ember"
            disabled={run.isPending || missing !== null || (words ? !lines.trim() : !name.trim())}
          >
            Add
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
