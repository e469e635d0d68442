import { useAccount } from '../../api/account';
import { count, money, whole } from '../../ui/format';
import type { Plan } from './useBudgets';

/** What a plan of budgets would change in a week, as a range. */
export function PlanEffect({ effect }: { effect: NonNullable<Plan['effect']> }) {
  const account = useAccount();
  const rows = [
    {
      name: 'Clicks',
      now: whole(effect.clicksNow),
      then: [whole(effect.clicks.low), whole(effect.clicks.high)],
    },
    {
      name: 'Cost',
      now: money(effect.costNow, account),
      then: [money(effect.cost.low, account), money(effect.cost.high, account)],
    },
    {
      name: 'Conversions',
      now: count(effect.conversionsNow),
      then: [count(effect.conversions.low), count(effect.conversions.high)],
    },
    {
      name: 'Cost per conversion',
      now: money(effect.costPerConversionNow, account),
      then: [money(effect.costPerConversion?.low, account), money(effect.costPerConversion?.high, account)],
    },
  ];
  return (
    <div className="mt-2.5 border-t border-line-soft pt-2">
      <h4 className="font-body text-[12px] font-semibold text-ink-2">What it would change in a week</h4>
      <table className="w-full">
        <tbody>
          {rows.map((row) => (
            <tr key={row.name}>
              <th scope="row" className="text-left font-normal">
                {row.name}
              </th>
              <td className="text-right">
                {row.now} →{' '}
                <strong>{row.then[0] === row.then[1] ? row.then[0] : row.then.join(' – ')}</strong>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-1 text-[12.5px] text-ink-3">{effect.restsOn}</p>
    </div>
  );
}
