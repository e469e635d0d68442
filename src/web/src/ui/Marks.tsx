import clsx from 'clsx';
import type { MatchType, Schemas } from '../api/client';
import { useKinds } from '../api/kinds';

export function MatchChip({ match, negative }: { match: MatchType; negative?: boolean }) {
  const kinds = useKinds();
  return (
    <span className={clsx('match', negative ? 'match-negative' : `match-${match}`)}>
      {negative ? '− ' : ''}
      {kinds.choiceName('match', match)}
    </span>
  );
}

/** How a row differs from the live copy: a pennant filled, outlined or furled. */
export function ChangeFlag({ change }: { change: Schemas['RowChange'] }) {
  if (change === 'none') return null;
  return (
    <svg
      viewBox="0 0 13 10"
      width={13}
      height={10}
      role="img"
      aria-label={change}
      className="inline-block align-[-1px]"
    >
      {change === 'new' && <path d="M0 0h13l-4 5 4 5H0z" className="fill-ember" />}
      {change === 'edited' && (
        <path d="M.7.7h10.4L8 5l3.1 4.3H.7z" fill="none" strokeWidth="1.5" className="stroke-ember" />
      )}
      {change === 'removed' && (
        <>
          <path d="M1 1v8" strokeWidth="2" className="stroke-brick" />
          <path d="M4 5h8" strokeWidth="1.5" className="stroke-brick" />
        </>
      )}
    </svg>
  );
}

/** How somebody proposes that a row should be: what could be is hatched where it is new, and dashed where it is otherwise. */
export function ProposedFlag({ change }: { change: Schemas['RowChange'] }) {
  if (change === 'none') return null;
  return (
    <svg
      viewBox="0 0 13 10"
      width={13}
      height={10}
      role="img"
      aria-label={`${change}, as proposed`}
      className="inline-block align-[-1px]"
    >
      {change === 'new' && (
        <>
          <path d="M.6.6h10.8L8.3 5l3.1 4.4H.6z" fill="none" strokeWidth="1.1" className="stroke-tide" />
          <path d="M3.2 1v8M5.8 1v8M8.2 1v2.6M8.2 6.4V9" strokeWidth="1.1" className="stroke-tide" />
        </>
      )}
      {change === 'edited' && (
        <path
          d="M.7.7h10.4L8 5l3.1 4.3H.7z"
          fill="none"
          strokeWidth="1.4"
          strokeDasharray="2.2 1.4"
          className="stroke-tide"
        />
      )}
      {change === 'removed' && (
        <path
          d="M1 1v8M4 5h8"
          strokeWidth="1.6"
          strokeDasharray="2 1.4"
          fill="none"
          className="stroke-brick"
        />
      )}
    </svg>
  );
}

const weights = {
  blocker: { sign: '■', tone: 'text-brick' },
  caution: { sign: '◆', tone: 'text-ochre' },
  hint: { sign: '○', tone: 'text-tide' },
} as const;

export function WeightMark({ weight, children }: { weight: Schemas['Weight']; children?: React.ReactNode }) {
  return (
    <span className={weights[weight].tone}>
      <span role="img" aria-label={weight}>
        {weights[weight].sign}
      </span>
      {children && <> {children}</>}
    </span>
  );
}

export function Keys({ children }: { children: string }) {
  return <kbd className="rounded-[3px] border border-current px-1 text-[11px] font-medium">{children}</kbd>;
}

/** The length of a text against the longest that is taken: what is too long says so, not by colour alone. */
export function Measure({ length, longest }: { length: number; longest: number }) {
  const over = length - longest;
  return over > 0 ? (
    <b className="font-semibold whitespace-nowrap text-brick">
      ■ {length} / {longest}, {over} too long
    </b>
  ) : (
    <span className="whitespace-nowrap text-ink-3">
      {length} / {longest}
    </span>
  );
}
