import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { figureOf, useMeasures } from '../../api/measures';
import { fullDay, shortDay } from '../../ui/format';
import type { Frame } from './pictures/WeekPicture';
import { ticks } from '../../ui/ticks';

/** How fine a chart is. */
export type Grain = 'day' | 'week' | 'month';

interface Bar {
  label: string;
  title: string;
  now: number | null;
  before: number | null;
}

const width = 920;
const height = 200;
const left = 56;
const top = 22;
const bottom = 26;

interface Props {
  days: readonly Schemas['ChartDay'][];
  figure: string;
  grain?: Grain;
  /** What was done, on the day from which on it could show. */
  changes?: readonly Schemas['OwnChange'][];
  note: string;
  frame: Frame;
}

const short = (text: string) => (text.length > 62 ? `${text.slice(0, 60)}…` : text);

/** One figure over days, weeks or months: this period solid, the one before hatched. */
export function DayChart({ days, figure, grain = 'day', changes = [], note, frame }: Props) {
  const measures = useMeasures();
  const [hovered, setHovered] = useState<number | null>(null);
  const title = measures.titleOf(figure);
  const write = (value: number | null | undefined) => measures.write(figure, value);
  const bars: Bar[] = days.map((day) => ({
    label: day.label,
    title: day.dayBefore
      ? `${span(day.day, day.last)}, before: ${span(day.dayBefore, day.lastBefore ?? day.dayBefore)}`
      : span(day.day, day.last),
    now: figureOf(day.figures, figure).now ?? null,
    before: figureOf(day.figures, figure).before ?? null,
  }));
  const most = Math.max(0, ...bars.flatMap((bar) => [bar.now ?? 0, bar.before ?? 0]));
  const axis = ticks(most);
  const ceiling = axis[axis.length - 1] ?? 1;
  const y = (value: number) => top + (height - top - bottom) * (1 - value / ceiling);
  const slot = (width - left - 10) / Math.max(1, bars.length);
  const bar = Math.min(62, slot * 0.46);
  const was = Math.min(40, slot * 0.3);
  const every = Math.max(1, Math.ceil(bars.length / 10));
  const said = hovered === null ? null : bars[hovered];
  const marks = changes.flatMap((change) => {
    const place = days.findIndex((day) => day.day <= change.day && change.day <= day.last);
    return place < 0 ? [] : [{ change, place }];
  });
  const saidChange = marks.find((mark) => mark.place === hovered)?.change;
  const axisDigits = (value: number) => write(value).replace(/\.00?(?=%?$)/, '');
  return frame(
    <svg
      viewBox={`0 0 ${width} ${height}`}
      role="img"
      aria-label={`${title} by ${grain}`}
      className="block w-full"
    >
      <defs>
        <pattern id="hatch" width={6} height={6} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width={3} height={6} className="fill-line-strong" />
        </pattern>
      </defs>
      {axis.map((value) => (
        <g key={value}>
          <path
            d={`M${left} ${y(value)}H${width - 10}`}
            className={value === 0 ? 'stroke-line-strong' : 'stroke-line-soft'}
          />
          <text x={left - 8} y={y(value) + 4} textAnchor="end" className="fill-ink-3 text-[11.5px]">
            {axisDigits(value)}
          </text>
        </g>
      ))}
      {bars.map((each, place) => {
        const x = left + slot * place + (slot - bar - was - 2) / 2;
        return (
          <g key={each.title} onMouseEnter={() => setHovered(place)} onMouseLeave={() => setHovered(null)}>
            <rect
              x={left + slot * place}
              y={top}
              width={slot}
              height={height - top - bottom}
              fill="transparent"
            />
            {each.now !== null && (
              <rect
                x={x}
                y={y(each.now)}
                width={bar}
                height={y(0) - y(each.now)}
                rx={1.5}
                className="fill-plum"
              />
            )}
            {each.before !== null && (
              <rect
                x={x + bar + 2}
                y={y(each.before)}
                width={was}
                height={y(0) - y(each.before)}
                rx={1.5}
                fill="url(#hatch)"
              />
            )}
            {place % every === 0 && (
              <text
                x={Math.min(left + slot * (place + 0.5), width - 6)}
                y={height - 9}
                textAnchor={left + slot * (place + 0.5) > width - 30 ? 'end' : 'middle'}
                className="fill-ink-3 text-[11.5px]"
              >
                {each.label}
              </text>
            )}
          </g>
        );
      })}
      {marks.map((mark) => (
        <path
          key={mark.change.day}
          d={`M${left + slot * (mark.place + 0.5) - 4} ${height - bottom + 1}l4 7l4 -7z`}
          className="fill-ember"
        >
          <title>{`${shortDay(mark.change.day)}: ${mark.change.says}`}</title>
        </path>
      ))}
      {saidChange && (
        <text x={left} y={14} className="fill-ember text-[12px] font-semibold">
          ▾ {short(saidChange.says)}
        </text>
      )}
      {said && (
        <text x={width - 12} y={14} textAnchor="end" className="fill-ink text-[12.5px] font-semibold">
          {said.title}: {write(said.now)} against {write(said.before)}
        </text>
      )}
    </svg>,
    {
      name: `${title}, by ${grain}`,
      words: [
        ...bars.map((each) => `${each.label}: ${write(each.now)}, before ${write(each.before)}`),
        ...marks.map((mark) => `${shortDay(mark.change.day)}: ${mark.change.says}`),
      ],
      note,
    },
  );
}

const span = (first: string, last: string, write: (day: string) => string = shortDay) =>
  first === last ? write(first) : `${write(first)} – ${write(last)}`;

/** The note that says which bar is which; it names the year where they are of several. */
export function chartNote(
  answer: Pick<Schemas['ResultsAnswer'], 'first' | 'last' | 'beforeFirst' | 'beforeLast'>,
) {
  const years = new Set(
    [answer.first, answer.last, answer.beforeFirst, answer.beforeLast].map((day) => day.slice(0, 4)),
  );
  const write = years.size > 1 ? fullDay : shortDay;
  return `solid: ${span(answer.first, answer.last, write)} · hatched: ${span(answer.beforeFirst, answer.beforeLast, write)}`;
}
