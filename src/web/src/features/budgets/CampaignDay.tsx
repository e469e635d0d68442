import { useAccount } from '../../api/account';
import { Choice } from '../../ui/Choice';
import { money, shortDay, whole } from '../../ui/format';
import { leadsHome } from '../../ui/home';
import { onToday } from './day';
import type { CampaignBudget, CampaignToday } from './useBudgets';

const usual = 'usual';

/** One day of a campaign by the hour: what was spent, and what its budget missed; of today what is likely to come. */
export function CampaignDay({
  name,
  budget,
  today,
  day,
  onDay,
}: {
  name: string;
  budget: CampaignBudget;
  today: CampaignToday | undefined;
  day: string | null;
  onDay: (day: string | null) => void;
}) {
  const account = useAccount();
  const now = day === onToday ? today : undefined;
  const hours = now
    ? now.hours.map((spent, hour) => ({
        hour,
        spent,
        beside: now.toCome[hour] ?? 0,
        how: `${money(now.toCome[hour], account)} likely to come`,
      }))
    : budget.hours.map((hour) => ({
        hour: hour.hour,
        spent: hour.spent,
        beside: hour.missed,
        how: `${money(hour.missed, account)} missed in ${whole(hour.searches)} searches`,
      }));
  const most = Math.max(...hours.map((hour) => hour.spent + hour.beside), 0);
  return (
    <section className="rounded-lg border border-line bg-sheet p-3" aria-label={`A day of ${name}`}>
      <div className="flex items-start gap-2" {...leadsHome}>
        <div className="min-w-0 flex-1">
          <h2 className="truncate text-[14px]">A day of {name}</h2>
          <p className="text-ink-3">
            {now
              ? 'spent by hour; hatched: likely to come'
              : 'spent by hour; hatched: searches that the budget missed'}
          </p>
        </div>
        <Choice
          label="Day"
          value={day ?? usual}
          options={[
            { value: usual, label: 'A usual day' },
            ...(today ? [{ value: onToday, label: 'Today so far' }] : []),
            ...budget.days.map((each) => ({ value: each, label: shortDay(each) })),
          ]}
          onChange={(next) => onDay(next === usual ? null : next)}
        />
      </div>
      {most === 0 ? (
        <p className="mt-4 text-ink-2">Nothing was spent or missed.</p>
      ) : (
        <>
          <p aria-hidden className="mt-2 border-b border-dashed border-line text-[12px] text-ink-3">
            {money(most, account)}
          </p>
          <ol className="flex h-[132px] items-end gap-[2px] border-b border-line-strong">
            {hours.map((hour) => (
              <li
                key={hour.hour}
                className="flex h-full flex-1 flex-col justify-end"
                title={`${hour.hour}:00 – ${money(hour.spent, account)} spent, ${hour.how}`}
              >
                <span className="sr-only">
                  {hour.hour}:00 {money(hour.spent, account)} spent, {hour.how}
                </span>
                <span
                  aria-hidden
                  className="bg-missed block rounded-t-[2px]"
                  style={{ height: `${(hour.beside / most) * 100}%` }}
                />
                <span
                  aria-hidden
                  className="block bg-plum"
                  style={{ height: `${(hour.spent / most) * 100}%` }}
                />
              </li>
            ))}
          </ol>
          <p aria-hidden className="relative mt-0.5 h-4 text-[12px] text-ink-3">
            {[0, 6, 12, 18].map((hour) => (
              <span key={hour} className="absolute" style={{ left: `${(hour / 24) * 100}%` }}>
                {hour}
              </span>
            ))}
          </p>
        </>
      )}
    </section>
  );
}
