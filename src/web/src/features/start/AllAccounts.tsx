import { Link } from 'react-router';
import { useAccount, useSession } from '../../api/account';
import { useAccountsOnDesk } from '../../api/accountsOnDesk';
import { change, money, nothing, whole } from '../../ui/format';
import { WeightMark } from '../../ui/Marks';
import { Panel } from '../../ui/Panel';

const mostShown = 8;

/** Accounts of the person in the last seven days, each with the figure that it is judged by. */
export function AllAccounts() {
  const current = useAccount();
  const accounts = useSession().accounts.filter((each) => !each.isArchived);
  const known = useAccountsOnDesk().data;
  if (!known || accounts.length < 2) return null;
  return (
    <Panel title="All accounts">
      <table className="w-full border-collapse">
        <thead>
          <tr className="border-b border-line-strong text-[11.5px] text-ink-3">
            <th scope="col" className="py-1 text-left font-semibold">
              Account
            </th>
            <th scope="col" className="text-right font-semibold">
              Cost
            </th>
            <th scope="col" className="text-right font-semibold">
              Judged by
            </th>
            <th scope="col" className="text-right font-semibold">
              Change
            </th>
            <th scope="col" className="text-right font-semibold">
              Stops
            </th>
          </tr>
        </thead>
        <tbody>
          {accounts.slice(0, mostShown).map((account) => {
            const row = known.find((each) => each.accountId === account.id);
            return (
              <tr key={account.id} className="border-b border-line-soft last:border-0">
                <th scope="row" className="max-w-[130px] truncate py-1 text-left">
                  <Link
                    to={`/${account.id}`}
                    title={account.name}
                    className={account.id === current.id ? 'font-semibold' : 'font-normal hover:underline'}
                  >
                    {account.name}
                  </Link>
                </th>
                <td className="text-right">{money(row?.cost, account)}</td>
                <td className="text-right">{row?.judgedBy ?? nothing}</td>
                <td className="text-right">{change(row?.change)}</td>
                <td className="text-right">
                  {row && row.blockers > 0 ? (
                    <WeightMark weight="blocker">{whole(row.blockers)}</WeightMark>
                  ) : (
                    nothing
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <Link to={`/${current.id}/accounts`} className="mt-1.5 inline-block font-semibold text-plum underline">
        All {accounts.length} accounts in one table
      </Link>
    </Panel>
  );
}
