import { useAccount } from '../../api/account';
import { money, shortDay } from '../../ui/format';
import { Panel } from '../../ui/Panel';
import { useMoves } from './useBudgets';

/** Budgets that were changed before: what was to be expected of the week that followed, and what came. */
export function MovesPanel() {
  const account = useAccount();
  const moves = useMoves().data ?? [];
  if (moves.length === 0) return null;
  return (
    <Panel title="Moved before, and what came of it">
      <ul className="flex flex-col gap-2">
        {moves.map((move) => (
          <li key={move.day} className="border-t border-line-soft pt-1.5 first:border-0 first:pt-0">
            <p className="font-semibold">
              {move.cameTrue === false && (
                <span className="text-ochre" role="img" aria-label="not as expected">
                  ◆{' '}
                </span>
              )}
              {shortDay(move.day)}
            </p>
            {move.budgets.map((budget, at) => (
              <p key={at} className="flex gap-2">
                <span className="min-w-0 flex-1 truncate">{budget.name ?? 'a campaign that is gone'}</span>
                <span className="whitespace-nowrap">
                  {money(budget.was, account)} → <strong>{money(budget.became, account)}</strong>
                </span>
              </p>
            ))}
            <p className="text-[12.5px] text-ink-2">{move.says}</p>
          </li>
        ))}
      </ul>
    </Panel>
  );
}
