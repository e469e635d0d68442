import { useState, type ReactNode } from 'react';
import { figureOf, useMeasures } from '../../../api/measures';
import { useBreakdown, type BreakdownAsked } from '../useBreakdown';

const [width, height, left, top] = [920, 200, 84, 22];
const [cell, row] = [(width - left - 10) / 24, (height - top - 14) / 7];

/** One figure of each hour of the week: the more, the deeper. */
export function WeekPicture({
  asked,
  figure,
  frame,
}: {
  asked: BreakdownAsked;
  figure: string;
  frame: Frame;
}) {
  const measures = useMeasures();
  const report = useBreakdown({ ...asked, by: 'weekday', then: 'hour' });
  const [hovered, setHovered] = useState<string | null>(null);
  const hours = (report.data?.rows ?? []).flatMap((weekday) =>
    weekday.parts.map((hour) => ({
      key: `${weekday.key}-${hour.key}`,
      day: (Number(weekday.key) + 6) % 7,
      hour: Number(hour.key),
      name: `${weekday.label} ${hour.label}`,
      figure: figureOf(hour.figures, figure),
    })),
  );
  const known = hours.filter((each) => Number.isInteger(each.day) && Number.isInteger(each.hour));
  const most = Math.max(1e-9, ...known.map((each) => each.figure.now ?? 0));
  const said = known.find((each) => each.key === hovered);
  const title = `${measures.titleOf(figure)} by hour of the week`;
  const text = (each: (typeof known)[number]) =>
    `${each.name}: ${measures.write(figure, each.figure.now)} against ${measures.write(figure, each.figure.before)}`;
  return frame(
    <svg viewBox={`0 0 ${width} ${height}`} role="img" aria-label={title} className="block w-full">
      {Array.from({ length: 24 }, (_, hour) => (
        <text
          key={hour}
          x={left + cell * (hour + 0.5)}
          y={14}
          textAnchor="middle"
          className="fill-ink-3 text-[11px]"
        >
          {said ? '' : hour}
        </text>
      ))}
      {weekdays.map((name, day) => (
        <text
          key={name}
          x={left - 8}
          y={top + row * (day + 0.5) + 4}
          textAnchor="end"
          className="fill-ink-2 text-[11.5px]"
        >
          {name}
        </text>
      ))}
      {known.map((each) => {
        const share = Math.max(0, (each.figure.now ?? 0) / most);
        return (
          <g key={each.key} onMouseEnter={() => setHovered(each.key)} onMouseLeave={() => setHovered(null)}>
            <rect
              x={left + cell * each.hour + 1}
              y={top + row * each.day + 1}
              width={cell - 2}
              height={row - 2}
              rx={2}
              className={share > 0 ? 'fill-plum' : 'fill-sunk'}
              fillOpacity={share > 0 ? 0.08 + 0.92 * share : 1}
            />
            {said?.key === each.key && (
              <rect
                x={left + cell * each.hour}
                y={top + row * each.day}
                width={cell}
                height={row}
                rx={2.5}
                fill="none"
                className="stroke-ink"
              />
            )}
          </g>
        );
      })}
      {said && (
        <text x={width - 12} y={14} textAnchor="end" className="fill-ink text-[12.5px] font-semibold">
          {text(said)}
        </text>
      )}
    </svg>,
    {
      name: title,
      words: known.filter((each) => (each.figure.now ?? 0) > 0).map(text),
      note: readingOf(report) ?? `deepest: ${measures.write(figure, known.length > 0 ? most : null)}`,
    },
  );
}

const weekdays = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];

/** What is said in place of a picture that is not there: that it is being read, or why it is not. */
export const readingOf = (report: { isError: boolean; isPending: boolean; error: Error | null }) =>
  report.isError ? (report.error?.message ?? '') : report.isPending ? 'Reading…' : null;

/** What a picture says besides its drawing. */
export interface Said {
  name: string;
  words: readonly string[];
  note: string;
}

/** Puts a picture into its frame, with what can be taken out of it. */
export type Frame = (picture: ReactNode, said: Said) => ReactNode;
