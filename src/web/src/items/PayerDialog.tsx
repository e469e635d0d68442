import { useQuery } from '@tanstack/react-query';
import { useState, type FormEvent } from 'react';
import { toast } from 'sonner';
import { useAccount } from '../api/account';
import { answer, api, ApiProblem } from '../api/client';
import { useRefresh } from '../api/hooks';
import { Button } from '../ui/Button';
import { Dialog } from '../ui/Dialog';
import { TextField } from '../ui/Field';

/** Who pays the account on its network. It is said there at once: there is no undo but naming another. */
export function PayerDialog({ onClose }: { onClose: () => void }) {
  const account = useAccount();
  const refresh = useRefresh();
  const payer = useQuery({
    queryKey: [account.id, 'payer'],
    queryFn: () =>
      answer(api.GET('/api/accounts/{accountId}/payer', { params: { path: { accountId: account.id } } })),
  });
  const [typed, setTyped] = useState<string | null>(null);
  const [stopping, setStopping] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const name = typed ?? payer.data?.name ?? '';
  const say = async (next: string | null) => {
    setProblem(null);
    try {
      await answer(
        api.PUT('/api/accounts/{accountId}/payer', {
          params: { path: { accountId: account.id } },
          body: { name: next },
        }),
      );
      toast(
        next === null ? 'Nobody pays for the account now: nothing of it shows.' : `${next} pays from now on.`,
      );
      await refresh();
      await refresh(['payer', 'checks', 'status']);
      onClose();
    } catch (error) {
      setProblem(error instanceof ApiProblem ? error.message : 'That could not be said to the network.');
    }
  };
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (name.trim()) void say(name.trim());
  };
  return (
    <Dialog open title={`Payer of ${account.name}`} onClose={onClose}>
      <form onSubmit={submit} className="flex flex-col gap-3">
        <TextField
          label="Who pays"
          autoFocus
          maxLength={120}
          placeholder="Tarn & Fell Pianos Ltd"
          value={name}
          problem={problem ?? payer.error?.message}
          onChange={(event) => setTyped(event.target.value)}
        />
        <p className="text-ink-2">
          {payer.data?.name
            ? `${payer.data.name} pays at present. The network is told at once.`
            : 'Nobody pays at present: what is published is reviewed, but nothing shows. The network is told at once.'}
        </p>
        <div className="flex justify-end gap-2">
          {payer.data?.name &&
            (stopping ? (
              <Button tone="brick" autoFocus onClick={() => void say(null)}>
                Yes, stop everything from showing
              </Button>
            ) : (
              <Button tone="brick" onClick={() => setStopping(true)}>
                Nobody pays…
              </Button>
            ))}
          <Button onClick={onClose}>Cancel</Button>
          <Button type="submit" tone="ember" disabled={!name.trim()}>
            Name the payer
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
