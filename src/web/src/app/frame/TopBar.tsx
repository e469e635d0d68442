import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { answer, api, type Session } from '../../api/client';
import { tell, useJob, useRefresh, useStatus } from '../../api/hooks';
import { Keys } from '../../ui/Marks';
import { Menu } from '../../ui/Menu';
import { useAccount } from '../../api/account';
import { ScopeTrail } from './ScopeTrail';

export function TopBar({ session, onFind }: { session: Session; onFind: () => void }) {
  const account = useAccount();
  return (
    <header className="on-dark flex items-center gap-2.5 bg-plum-deep px-3.5 text-[#f4ecf5]">
      <Link
        to={`/${account.id}`}
        className="mr-2.5 flex items-center gap-2 rounded-sm font-head text-[18px] font-semibold"
        aria-label="Fendrik: what needs attention today"
      >
        <svg width={22} height={22} viewBox="0 0 22 22" aria-hidden>
          <path d="M4 1v20" stroke="#f4ecf5" strokeWidth="2" />
          <path d="M5 2h15l-4 5 4 5H5z" fill="#c8501e" />
        </svg>
        Fendrik
      </Link>
      <ScopeTrail accounts={session.accounts} />
      <button
        type="button"
        onClick={onFind}
        className="ml-auto flex w-[250px] items-center justify-between rounded-sm bg-plum-mid px-2.5 py-[5px] text-[#d6c7da]"
      >
        Find or do anything <Keys>Ctrl K</Keys>
      </button>
      <NetworkClock />
      <PersonMenu session={session} />
    </header>
  );
}

const moves = [
  { label: 'Let an hour pass', hours: 1 },
  { label: 'Let a day pass', hours: 24 },
  { label: 'Let a week pass', hours: 168 },
];

/** The network's simulated clock; it moves when it is told to. */
function NetworkClock() {
  const account = useAccount();
  const status = useStatus();
  const refresh = useRefresh();
  const [jobId, setJobId] = useState<number | null>(null);
  const { job, isRunning } = useJob(jobId, (ended) => {
    if (ended.state === 'done') toast('Time has passed on the network. New results are here.');
    else toast.error(ended.message ?? 'The clock could not be moved.');
    void refresh();
    void refresh(['results']);
  });
  const move = async (hours: number) => {
    try {
      const begun = await answer(
        api.POST('/api/accounts/{accountId}/clock', {
          params: { path: { accountId: account.id } },
          body: { hours },
        }),
      );
      setJobId(begun.id);
    } catch (error) {
      tell(error);
    }
  };
  const time = isRunning
    ? `time passes… ${job?.total ? Math.round((100 * job.done) / job.total) : 0}%`
    : status.data?.networkTime
      ? `${status.data.networkTime} sim`
      : 'clock not read yet';
  return (
    <Menu
      heading="The simulated network"
      entries={moves.map(({ label, hours }) => ({
        label,
        disabled: isRunning,
        onSelect: () => void move(hours),
      }))}
      trigger={
        <button type="button" className="rounded-sm px-1 text-[12.5px] text-[#dccbe1] hover:text-white">
          {account.networkName} · {time}
        </button>
      }
    />
  );
}

function PersonMenu({ session }: { session: Session }) {
  const queries = useQueryClient();
  const signOut = async () => {
    await api.DELETE('/api/session');
    await queries.resetQueries();
  };
  return (
    <Menu
      heading={session.person ?? ''}
      entries={[{ label: 'Sign out', onSelect: () => void signOut() }]}
      trigger={
        <button
          type="button"
          aria-label={`${session.initials ?? ''}, ${session.person ?? ''}: sign out`}
          className="grid size-[26px] place-items-center rounded-full bg-ember text-[12px] font-semibold text-white"
        >
          {session.initials}
        </button>
      }
    />
  );
}
