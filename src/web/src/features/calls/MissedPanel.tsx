import { useNavigate } from 'react-router';
import { useAccount } from '../../api/account';
import { Button } from '../../ui/Button';
import type { Calls } from './useCalls';

/** What was paid for calls in vain, and the way to the hours. */
export function MissedPanel({ calls }: { calls: Calls }) {
  const account = useAccount();
  const navigate = useNavigate();
  const { search } = window.location;
  return (
    <section className="rounded-lg border border-line bg-sheet p-3" aria-label="Calls in vain">
      <h2 className="text-[14px]">{calls.missedTitle}</h2>
      {calls.missedSays && <p className="mt-1.5">{calls.missedSays}</p>}
      <div className="mt-2.5">
        <Button
          tone={calls.missedOutside ? 'plum' : 'plain'}
          onClick={() => void navigate(`/${account.id}/price/hours${search}`)}
        >
          {calls.missedOutside ? 'Change the hours…' : 'Hours…'}
        </Button>
      </div>
    </section>
  );
}
