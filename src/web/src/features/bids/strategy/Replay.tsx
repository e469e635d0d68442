import { useAccount } from '../../../api/account';
import { count, money, shortDay, whole } from '../../../ui/format';
import type { Strategy } from '../useBids';

type Line = NonNullable<Strategy['replay']>['was'];

/** Past weeks as they were, and as they might have been: solid what was, hatched what would have been. */
export function Replay({ known }: { known: Strategy }) {
  const account = useAccount();
  const { replay } = known;
  if (!replay)
    return (
      <p className="px-3 py-2 text-ink-2">
        {known.wanted === 'manualCpc'
          ? 'Choose a strategy above: the last weeks are played again with the bids that it would have made.'
          : known.problems.length > 0
            ? 'Set what is missing above, and the last weeks are played again.'
            : 'There are no weeks with clicks to play again.'}
      </p>
    );
  const most = Math.max(...replay.weeks.flatMap((week) => [week.was.conversions, week.would.conversions]));
  const range = (of: (line: Line) => string) =>
    of(replay.low) === of(replay.high) ? of(replay.low) : `${of(replay.low)} – ${of(replay.high)}`;
  const perConversion = (line: Line) => money(line.costPerConversion, account);
  return (
    <div className="px-3 pb-3">
      <table className="w-full border-collapse" aria-label="Past weeks played again">
        <thead>
          <tr className="border-b border-line-strong text-[12px] text-ink-3">
            <th scope="col" className="py-1 text-left font-semibold">
              Week from
            </th>
            <th scope="col" className="w-[24%] px-2 text-left font-semibold">
              Conversions
            </th>
            <th scope="col" className="px-2 text-right font-semibold">
              Was
            </th>
            <th scope="col" className="px-2 text-right font-semibold">
              Would be
            </th>
            <th scope="col" className="px-2 text-right font-semibold">
              Cost
            </th>
            <th scope="col" className="px-2 text-right font-semibold">
              Would be
            </th>
            <th scope="col" className="px-2 text-right font-semibold">
              Cost / conv.
            </th>
            <th scope="col" className="pl-2 text-right font-semibold">
              Would be
            </th>
          </tr>
        </thead>
        <tbody>
          {replay.weeks.map((week) => (
            <tr key={week.first} className="h-[27px] border-b border-line-soft">
              <th scope="row" className="text-left font-normal">
                {shortDay(week.first)}
              </th>
              <td className="px-2">
                <Bar was={week.was.conversions} would={week.would.conversions} most={most} />
              </td>
              <td className="px-2 text-right">{count(week.was.conversions)}</td>
              <td className="px-2 text-right">{count(week.would.conversions)}</td>
              <td className="px-2 text-right">{money(week.was.cost, account)}</td>
              <td className="px-2 text-right">{money(week.would.cost, account)}</td>
              <td className="px-2 text-right">{perConversion(week.was)}</td>
              <td className="pl-2 text-right">{perConversion(week.would)}</td>
            </tr>
          ))}
        </tbody>
        <tfoot>
          <tr className="h-[30px] font-semibold">
            <th scope="row" className="text-left" colSpan={2}>
              Together
            </th>
            <td className="px-2 text-right">{count(replay.was.conversions)}</td>
            <td className="px-2 text-right text-plum">{count(replay.would.conversions)}</td>
            <td className="px-2 text-right">{money(replay.was.cost, account)}</td>
            <td className="px-2 text-right text-plum">{money(replay.would.cost, account)}</td>
            <td className="px-2 text-right">{perConversion(replay.was)}</td>
            <td className="pl-2 text-right text-plum">{perConversion(replay.would)}</td>
          </tr>
        </tfoot>
      </table>
      <p className="mt-1">
        Nine times in ten {range((line) => count(line.conversions))} conversions for{' '}
        {range((line) => money(line.cost, account))}, and {range((line) => whole(Math.round(line.clicks)))}{' '}
        clicks.
      </p>
      <p className="mt-1.5 text-[12.5px] text-ink-2">
        <strong className="text-ink">What this cannot know:</strong> {replay.cannotKnow.join(' ')}
      </p>
    </div>
  );
}

function Bar({ was, would, most }: { was: number; would: number; most: number }) {
  const part = (amount: number) => `${most > 0 ? (amount / most) * 100 : 0}%`;
  return (
    <span aria-hidden className="flex flex-col gap-[2px]">
      <span className="h-[6px] rounded-sm bg-plum" style={{ width: part(was) }} />
      <span className="bg-missed h-[6px] rounded-sm" style={{ width: part(would) }} />
    </span>
  );
}
