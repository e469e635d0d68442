import { Choice } from '../../ui/Choice';
import { whole } from '../../ui/format';
import type { Calls } from './useCalls';

const days = [
  { value: 'weekdays', label: 'Monday to Friday' },
  { value: 'weekend', label: 'Saturday and Sunday' },
] as const;

const high = 112;
const wide = 22;

interface Props {
  calls: Calls;
  days: 'weekdays' | 'weekend';
  onDays: (days: 'weekdays' | 'weekend') => void;
}

/** Calls by the hour, answered and in vain, before the hours in which somebody is there. */
export function WhenItRings({ calls, days: chosen, onDays }: Props) {
  const most = Math.max(1, ...calls.hours.map((hour) => hour.answered + hour.missed));
  const scale = (count: number) => (count / most) * high;
  return (
    <section
      className="relative rounded-lg border border-line bg-sheet p-3"
      aria-label="When it rings, and who answers"
    >
      <div className="flex items-center gap-2">
        <h2 className="text-[14px]">When it rings, and who answers</h2>
        <div className="ml-auto">
          <Choice label="Days" value={chosen} options={days} onChange={onDays} />
        </div>
      </div>
      <p className="text-ink-3">the shaded ground is when somebody takes calls; hatched: in vain</p>
      <svg
        viewBox={`0 0 ${24 * wide} ${high + 20}`}
        className="mt-1 block w-full"
        role="img"
        aria-label={`Calls by the hour, ${calls.daysOfHours}`}
      >
        <defs>
          <pattern
            id="in-vain"
            width="5"
            height="5"
            patternUnits="userSpaceOnUse"
            patternTransform="rotate(45)"
          >
            <rect width="5" height="5" className="fill-brick-wash" />
            <rect width="2.5" height="5" className="fill-brick" />
          </pattern>
        </defs>
        {calls.hours.map((hour) => (
          <g key={hour.hour} transform={`translate(${hour.hour * wide} 0)`}>
            <title>{`${hour.hour}:00: ${whole(hour.answered)} answered, ${whole(hour.missed)} in vain`}</title>
            {hour.openShare > 0 && (
              <rect width={wide} height={high} className="fill-sunk" fillOpacity={hour.openShare} />
            )}
            <rect
              x={3}
              width={wide - 6}
              y={high - scale(hour.answered)}
              height={scale(hour.answered)}
              className="fill-plum"
            />
            <rect
              x={3}
              width={wide - 6}
              y={high - scale(hour.answered + hour.missed)}
              height={scale(hour.missed)}
              fill="url(#in-vain)"
            />
            {hour.hour % 6 === 0 && (
              <text x={2} y={high + 15} className="fill-ink-3 text-[11px]">
                {hour.hour}
              </text>
            )}
          </g>
        ))}
        <path d={`M0 ${high + 0.5}h${24 * wide}`} className="stroke-line-strong" />
      </svg>
      <table className="sr-only">
        <caption>Calls by the hour, {calls.daysOfHours}</caption>
        <thead>
          <tr>
            <th scope="col">Hour</th>
            <th scope="col">Answered</th>
            <th scope="col">In vain</th>
          </tr>
        </thead>
        <tbody>
          {calls.hours.map((hour) => (
            <tr key={hour.hour}>
              <th scope="row">{hour.hour}:00</th>
              <td>{hour.answered}</td>
              <td>{hour.missed}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
