import type { Schemas } from '../../api/client';
import { figureOf, useMeasures } from '../../api/measures';
import { shortDay } from '../../ui/format';

/** A figure of each day of a week: now solid, the week before hatched. */
export function WeekBars({ days, figure }: { days: readonly Schemas['ChartDay'][]; figure: string }) {
  const measures = useMeasures();
  const title = measures.titleOf(figure);
  const write = (value: number | null | undefined) => measures.write(figure, value);
  const most = Math.max(
    1e-9,
    ...days.flatMap((day) => [
      figureOf(day.figures, figure).now ?? 0,
      figureOf(day.figures, figure).before ?? 0,
    ]),
  );
  const height = (value: number | null | undefined) => `${(100 * (value ?? 0)) / most}%`;
  return (
    <ol
      aria-label={`${title} of each day`}
      className="mt-2 flex h-[72px] items-end gap-2 border-b border-line-strong"
    >
      {days.map((day) => (
        <li
          key={day.day}
          className="flex h-full flex-1 items-end gap-[2px]"
          title={`${shortDay(day.day)}: ${write(figureOf(day.figures, figure).now)}, a week before ${write(figureOf(day.figures, figure).before)}`}
        >
          <span className="sr-only">
            {shortDay(day.day)} {write(figureOf(day.figures, figure).now)}, a week before{' '}
            {write(figureOf(day.figures, figure).before)}
          </span>
          <span
            aria-hidden
            className="w-1/2 rounded-t-[2px] bg-plum"
            style={{ height: height(figureOf(day.figures, figure).now) }}
          />
          <span
            aria-hidden
            className="bg-missed w-1/2 rounded-t-[2px]"
            style={{ height: height(figureOf(day.figures, figure).before) }}
          />
        </li>
      ))}
    </ol>
  );
}
