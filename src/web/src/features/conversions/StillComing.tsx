import { count, percent, shortDay } from '../../ui/format';
import { Panel } from '../../ui/Panel';
import type { Delay } from './useConversions';

const mostDays = 7;

/** Days whose conversions are still coming in, with what they are expected to come to. */
export function StillComing({ delay }: { delay: Delay }) {
  const days = delay.days.slice(0, mostDays);
  const most = Math.max(1, ...days.map((day) => day.final ?? day.soFar));
  return (
    <Panel title="Still coming in">
      <p className="text-ink-2">{delay.says}</p>
      {days.length > 0 && (
        <table className="mt-1.5 w-full table-fixed">
          <thead>
            <tr className="text-[12px] text-ink-3">
              <th scope="col" className="w-[74px] text-left font-semibold">
                Clicks of
              </th>
              <td />
              <th scope="col" className="w-[48px] text-right font-semibold">
                So far
              </th>
              <th scope="col" className="w-[60px] text-right font-semibold">
                Expected
              </th>
            </tr>
          </thead>
          <tbody>
            {days.map((day) => (
              <tr key={day.day}>
                <th scope="row" className="py-0.5 text-left font-normal">
                  {shortDay(day.day)}
                </th>
                <td title={day.told === null ? undefined : `${percent(day.told, 0)} is told of by now`}>
                  <span aria-hidden className="relative block h-[12px] rounded-sm bg-sunk">
                    <span
                      className="absolute inset-y-0 left-0 rounded-l-sm bg-plum"
                      style={{ width: `${(day.soFar / most) * 100}%` }}
                    />
                    {day.final !== null && (
                      <span
                        className="bg-missed absolute inset-y-0"
                        style={{
                          left: `${(day.soFar / most) * 100}%`,
                          width: `${((day.final - day.soFar) / most) * 100}%`,
                        }}
                      />
                    )}
                  </span>
                </td>
                <td className="text-right">{count(day.soFar)}</td>
                <td className="text-right">{count(day.final)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </Panel>
  );
}
