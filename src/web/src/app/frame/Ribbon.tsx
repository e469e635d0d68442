import clsx from 'clsx';
import { Link, useLocation, useSearchParams } from 'react-router';
import { useStatus } from '../../api/hooks';
import { useAccount } from '../../api/account';
import { lastPlace } from '../lastPlaces';
import { phases } from '../pages';
import { Tip } from '../../ui/Tip';

/** The six phases in the order of the work; beside the active one, its pages. */
export function Ribbon() {
  const account = useAccount();
  const { pathname } = useLocation();
  const [parameters] = useSearchParams();
  const status = useStatus();
  // A page is come back to as it was left, but for the scope, which is of all pages.
  const to = (path: string) => {
    const place = lastPlace(`/${account.id}/${path}`);
    for (const name of ['campaign', 'adGroup']) {
      const value = parameters.get(name);
      if (value) place.set(name, value);
    }
    const query = place.toString();
    return `/${account.id}/${path}${query ? `?${query}` : ''}`;
  };
  const active = phases.find((phase) => phase.pages.some((page) => pathname.endsWith(page.path)));
  const blockers = status.data?.counting ? 0 : (status.data?.blockers ?? 0);
  return (
    <nav
      aria-label="Phases"
      className="flex min-h-[42px] flex-wrap items-stretch border-b border-line-strong bg-sunk pl-1.5"
    >
      {phases.map((phase) => {
        const first = phase.pages[0];
        const on = phase === active;
        const content = (
          <>
            {phase.name}
            {phase.name === 'Ship' && blockers > 0 && (
              <span
                className="rounded-lg bg-ember px-1.5 font-body text-[11px] text-white"
                aria-label={`${blockers} blockers`}
              >
                {blockers}
              </span>
            )}
          </>
        );
        const look = 'flex items-center gap-1.5 py-0 pl-4 font-head text-[14px] font-semibold';
        return first ? (
          <Link
            key={phase.name}
            to={to(first.path)}
            aria-current={on ? 'true' : undefined}
            className={clsx(
              look,
              on ? 'swallowtail bg-plum pr-7 text-white' : 'pr-5 text-ink-2 hover:text-ink',
            )}
          >
            {content}
          </Link>
        ) : (
          <Tip key={phase.name} text="Nothing here yet: the pages of this phase are still to come.">
            <span className={clsx(look, 'pr-5 text-ink-3')}>{content}</span>
          </Tip>
        );
      })}
      <div className="ml-4 flex items-center gap-0.5">
        {active?.pages.map((page) => {
          const on = pathname.endsWith(page.path);
          return (
            <Link
              key={page.path}
              to={to(page.path)}
              aria-current={on ? 'page' : undefined}
              className={clsx(
                'rounded-sm px-[11px] py-[5px]',
                on
                  ? 'bg-sheet font-semibold text-plum ring-1 ring-line'
                  : 'font-medium text-ink-2 hover:text-ink',
              )}
            >
              {page.name}
            </Link>
          );
        })}
      </div>
    </nav>
  );
}
