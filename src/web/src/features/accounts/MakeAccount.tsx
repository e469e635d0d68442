import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { answer, api, ApiProblem, type AccountSummary } from '../../api/client';
import { tell } from '../../api/hooks';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Dialog } from '../../ui/Dialog';
import { TextField } from '../../ui/Field';

/** An account is made, empty: what stays as it is is asked for, and who pays now or later. */
export function MakeAccount({
  like,
  onClose,
  onMade,
}: {
  /** An account that it is likely to be like. */
  like?: AccountSummary;
  onClose: () => void;
  onMade: (accountId: number) => void;
}) {
  const choices = useQuery({
    queryKey: ['accountChoices'],
    staleTime: Infinity,
    queryFn: ({ signal }) => answer(api.GET('/api/accounts/choices', { signal })),
  }).data;
  const [name, setName] = useState('');
  const [network, setNetwork] = useState('');
  const [currency, setCurrency] = useState(like?.currency ?? 'GBP');
  const [chosen, setTimeZone] = useState(
    () => like?.timeZone ?? Intl.DateTimeFormat().resolvedOptions().timeZone,
  );
  // What a browser says may be no place.
  const timeZone = choices?.timeZones.includes(chosen) ? chosen : 'Europe/London';
  const [payer, setPayer] = useState('');
  const [problem, setProblem] = useState<Record<string, string[]>>({});
  const [busy, setBusy] = useState(false);
  const networkId = network || (choices?.networks[0]?.id ?? '');
  const make = async () => {
    setBusy(true);
    setProblem({});
    try {
      const made = await answer(
        api.POST('/api/accounts', { body: { name, currency, timeZone, networkId, payer: payer || null } }),
      );
      onMade(made.accountId);
    } catch (error) {
      if (error instanceof ApiProblem && Object.keys(error.fields).length > 0) setProblem(error.fields);
      else tell(error);
      setBusy(false);
    }
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title="Make an account"
      description="Currency, time zone and network stay as they are chosen here."
      footer={
        <Button
          tone="ember"
          data-confirms
          disabled={!name.trim() || busy || !choices}
          onClick={() => void make()}
        >
          Make it
        </Button>
      }
    >
      <form
        className="space-y-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (name.trim() && !busy) void make();
        }}
      >
        <TextField
          label="Name"
          value={name}
          problem={problem['name']?.join(' ')}
          onChange={(event) => setName(event.target.value)}
        />
        {choices && (
          <div>
            <span className="mb-1 block text-[12px] font-semibold text-ink-2">Network</span>
            <Choice
              label="Network"
              className="w-full"
              value={networkId}
              options={choices.networks.map((each) => ({ value: each.id, label: each.name }))}
              onChange={setNetwork}
            />
          </div>
        )}
        {choices && (
          <div className="grid grid-cols-[130px_1fr] gap-3">
            <div>
              <span className="mb-1 block text-[12px] font-semibold text-ink-2">Currency</span>
              <Choice
                label="Currency"
                className="w-full"
                value={currency}
                options={choices.currencies.map((each) => ({ value: each, label: each }))}
                onChange={setCurrency}
              />
            </div>
            <div>
              <span className="mb-1 block text-[12px] font-semibold text-ink-2">Time zone</span>
              <Choice
                label="Time zone"
                className="w-full"
                value={timeZone}
                options={choices.timeZones.map((each) => ({ value: each, label: each }))}
                onChange={setTimeZone}
              />
            </div>
          </div>
        )}
        <TextField
          label="Who pays"
          value={payer}
          hint="May be left for later; until somebody pays nothing is shown."
          problem={problem['payer']?.join(' ')}
          onChange={(event) => setPayer(event.target.value)}
        />
        <button type="submit" hidden />
      </form>
    </Dialog>
  );
}
