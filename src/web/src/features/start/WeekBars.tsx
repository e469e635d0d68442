import { useAccount } from '../../api/account';
import type { Schemas } from '../../api/client';
import { shortDay } from '../../ui/format';
import { figureOf, type FigureKey } from '../results/figures';

/** A figure of each day of a week: now solid, the week before hatched. */
export function WeekBars({ days, figure }: { days: readonly Schemas['ChartDay'][]; figure: FigureKey }) {
  const account = useAccount();
  const { write, title } = figureOf(figure);
  const most = Math.max(
    1e-9,
    ...days.flatMap((day) => [day.figures[figure].now ?? 0, day.figures[figure].before ?? 0]),
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
          title={`${shortDay(day.day)}: ${write(day.figures[figure].now, account)}, a week before ${write(day.figures[figure].before, account)}`}
        >
          <span className="sr-only">
            {shortDay(day.day)} {write(day.figures[figure].now, account)}, a week before{' '}
            {write(day.figures[figure].before, account)}
          </span>
          <span
            aria-hidden
            className="w-1/2 rounded-t-[2px] bg-plum"
            style={{ height: height(day.figures[figure].now) }}
          />
          <span
            aria-hidden
            className="bg-missed w-1/2 rounded-t-[2px]"
            style={{ height: height(day.figures[figure].before) }}
          />
        </li>
      ))}
    </ol>
  );
}
