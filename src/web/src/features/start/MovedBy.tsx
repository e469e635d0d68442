import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { useAccount } from '../../api/account';
import { answer, api } from '../../api/client';
import { money } from '../../ui/format';
import { Panel } from '../../ui/Panel';

/** What moved the cost of a conversion from one week to the next. */
export function MovedBy({ days }: { days: { first: string; last: string } }) {
  const account = useAccount();
  const moved = useQuery({
    queryKey: [account.id, 'results', 'moved', 'start', days],
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/accounts/{accountId}/results/moved', {
          params: { path: { accountId: account.id }, query: { ...days, figure: 'costPerConversion' } },
          signal,
        }),
      ),
  });
  const data = moved.data;
  if (!data || data.change === null || data.change === undefined || data.causes.length === 0) return null;
  const write = (amount: number) => `${amount > 0 ? '+' : ''}${money(amount, account)}`;
  return (
    <Panel title="Cost per conversion, moved by">
      <table className="w-full">
        <tbody>
          {data.causes.map((cause) => (
            <tr key={cause.cause}>
              <th scope="row" className="py-0.5 text-left font-normal" title={cause.how}>
                {cause.name}
              </th>
              <td className="text-right font-semibold">{write(cause.effect)}</td>
            </tr>
          ))}
          <tr className="text-ink-3">
            <th scope="row" className="py-0.5 text-left font-normal">
              together
            </th>
            <td className="text-right">{write(data.change)}</td>
          </tr>
        </tbody>
      </table>
      <p className="mt-1 text-[12.5px] text-ink-3">
        {data.chance}{' '}
        <Link to={`/${account.id}/learn/results?period=last7`} className="text-plum underline">
          See it in Results
        </Link>
      </p>
    </Panel>
  );
}
