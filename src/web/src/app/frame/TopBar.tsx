import { ChevronDown } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import type { Session } from '../../api/client';
import { Keys } from '../../ui/Marks';
import { Menu } from '../../ui/Menu';
import { useAccount } from '../../api/account';
import { PeopleDialog } from '../../features/people/PeopleDialog';
import { SignInsDialog } from '../../features/people/SignInsDialog';
import { ScopeTrail } from './ScopeTrail';
import { useSignOut } from './useSignOut';
import { clockMoves, type Clock } from './useClock';

export function TopBar({ session, clock, onFind }: { session: Session; clock: Clock; onFind: () => void }) {
  const account = useAccount();
  return (
    <header className="on-dark flex min-h-[46px] flex-wrap items-center gap-x-2.5 gap-y-1 bg-plum-deep px-3.5 py-1 text-[#f4ecf5]">
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
      <NetworkClock clock={clock} />
      <PersonMenu session={session} />
    </header>
  );
}

/** The network's simulated clock; it moves when it is told to. */
function NetworkClock({ clock }: { clock: Clock }) {
  const account = useAccount();
  return (
    <Menu
      heading="The clock of the simulated network"
      entries={[
        ...clockMoves.map(({ name, hours }) => ({
          label: name,
          disabled: clock.isRunning,
          onSelect: () => clock.move(hours),
        })),
        { label: 'Stop the clock', disabled: !clock.isRunning, onSelect: clock.stop },
      ]}
      trigger={
        <button
          type="button"
          aria-label={`Clock of ${account.networkName}: ${clock.time}`}
          className="flex min-w-0 items-center gap-1.5 rounded-sm border border-plum-mid px-2 py-[3px] text-[12.5px] whitespace-nowrap text-[#dccbe1] hover:bg-plum-mid hover:text-white"
        >
          <span className="truncate">
            {account.networkName} · {clock.time}
          </span>
          <ChevronDown size={12} className="shrink-0" aria-hidden />
        </button>
      }
    />
  );
}

function PersonMenu({ session }: { session: Session }) {
  const signOut = useSignOut();
  const [open, setOpen] = useState<'signIns' | 'people' | null>(null);
  return (
    <>
      <Menu
        heading={session.person ?? ''}
        entries={[
          { label: 'People of this account…', onSelect: () => setOpen('people') },
          { label: 'Sign-ins and password…', onSelect: () => setOpen('signIns') },
          { label: 'Sign out', onSelect: () => void signOut() },
        ]}
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
      {open === 'people' && <PeopleDialog onClose={() => setOpen(null)} />}
      {open === 'signIns' && <SignInsDialog onClose={() => setOpen(null)} />}
    </>
  );
}
