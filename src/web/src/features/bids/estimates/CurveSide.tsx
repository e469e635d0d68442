import { useAccount } from '../../../api/account';
import { Button } from '../../../ui/Button';
import { TextField } from '../../../ui/Field';
import { count, money } from '../../../ui/format';
import { Panel } from '../../../ui/Panel';
import type { Estimates, WeekLine } from '../useBids';
import { Curve } from './Curve';

interface Props {
  estimates: Estimates;
  isOfKeyword: boolean;
  onAll: () => void;
  change: string;
  onChange: (text: string) => void;
}

/** Over the bid: clicks and conversions with their ranges, and what a planned bid would bring. */
export function CurveSide({ estimates, isOfKeyword, onAll, change, onChange }: Props) {
  const account = useAccount();
  const { curve } = estimates;
  return (
    <aside
      className="flex min-h-0 flex-col gap-2.5 overflow-auto border-l border-line bg-paper p-3"
      aria-label="Over the bid"
    >
      <div className="flex items-baseline gap-2">
        <h2 className="min-w-0 flex-1 truncate text-[15px]" title={curve.title}>
          {curve.title}
        </h2>
        {isOfKeyword && (
          <Button tone="quiet" onClick={onAll}>
            All together
          </Button>
        )}
      </div>
      {curve.own.length > 0 && (
        <Panel title="Clicks in a week, over the bid">
          <Curve curve={curve} currency={account} />
        </Panel>
      )}
      <Panel title={isOfKeyword ? 'At another bid' : 'If all bids changed'}>
        <TextField
          label={isOfKeyword ? 'Bid' : 'Change'}
          hideLabel
          className="w-[130px]"
          placeholder={isOfKeyword ? '1.20 or +20%' : '+20%'}
          value={change}
          problem={curve.problem}
          onChange={(event) => onChange(event.target.value)}
        />
        {curve.now && <Then now={curve.now} then={curve.planned} />}
      </Panel>
      <Panel title="What it rests on">
        <div className="space-y-1 text-[12.5px] text-ink-2">
          {curve.restsOn.map((sentence) => (
            <p key={sentence}>{sentence}</p>
          ))}
        </div>
      </Panel>
    </aside>
  );
}

function Then({ now, then }: { now: WeekLine; then: WeekLine | null }) {
  const account = useAccount();
  const rows = [
    { name: 'Clicks in a week', of: (week: WeekLine) => week.clicks, shown: (value: number) => count(value) },
    { name: 'Cost', of: (week: WeekLine) => week.cost, shown: (value: number) => money(value, account) },
    { name: 'Conversions', of: (week: WeekLine) => week.conversions, shown: (value: number) => count(value) },
  ];
  return (
    <table className="mt-1.5 w-full" aria-live="polite" aria-label="Now and then">
      <tbody>
        {rows.map((row) => (
          <tr key={row.name}>
            <th scope="row" className="text-left font-normal">
              {row.name}
            </th>
            <td className="text-right whitespace-nowrap">
              {row.shown(row.of(now).likely)}
              {then && (
                <>
                  {' → '}
                  <strong>
                    {row.shown(row.of(then).low)} – {row.shown(row.of(then).high)}
                  </strong>
                </>
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
