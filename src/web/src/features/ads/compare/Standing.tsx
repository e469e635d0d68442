import type { Schemas } from '../../../api/client';
import { count, fullDay, percent } from '../../../ui/format';

/** By what ads are compared. */
export const measures = [
  { value: 'clicks', label: 'Clicks' },
  { value: 'conversions', label: 'Conversions' },
] as const;

export type Compared = Schemas['ComparedAd'];

/** How an ad stands against the best of its ad group, in words. */
export function standingOf(ad: Compared): string {
  switch (ad.standing) {
    case 'best':
      return 'best so far';
    case 'worse':
      return 'surely worse';
    case 'open':
      return ad.weeks === null || ad.weeks === undefined
        ? 'not sure'
        : `not sure: about ${weeks(ad.weeks)} more`;
    case 'alike':
      return 'alike';
  }
}

const weeks = (number: number) => (number === 1 ? 'a week' : `${count(number)} weeks`);

interface Props {
  compared: Schemas['ComparedAds'];
  current?: number;
}

/** Ads against one another: their figure, where it may well lie, and what follows. */
export function ComparedTable({ compared, current }: Props) {
  const most = Math.max(...compared.ads.map((ad) => ad.interval.high));
  const at = (share: number) => `${(share / most) * 100}%`;
  return (
    <>
      <ul>
        {compared.ads.map((ad) => (
          <li key={ad.adId} className="border-b border-line-soft py-1.5 last:border-0">
            <span className="flex items-baseline justify-between gap-2">
              <span className={`min-w-0 truncate ${ad.adId === current ? 'font-semibold' : ''}`}>
                {compared.names[ad.adId]}
              </span>
              <span>{percent(ad.share, 2)}</span>
            </span>
            <span
              role="img"
              aria-label={`between ${percent(ad.interval.low, 2)} and ${percent(ad.interval.high, 2)}`}
              title={`95 times of a hundred between ${percent(ad.interval.low, 2)} and ${percent(ad.interval.high, 2)}`}
              className="relative my-1 block h-[7px] rounded-full bg-sunk"
            >
              <span
                className="absolute h-full rounded-full bg-plum/40"
                style={{ left: at(ad.interval.low), width: at(ad.interval.high - ad.interval.low) }}
              />
              <span className="absolute h-full w-[3px] bg-plum" style={{ left: at(ad.share) }} />
            </span>
            <span className={`text-[12.5px] ${ad.standing === 'worse' ? 'text-ochre' : 'text-ink-3'}`}>
              {ad.standing === 'worse' && '◆ '}
              {standingOf(ad)}
            </span>
          </li>
        ))}
      </ul>
      <p className="mt-1 text-[12px] text-ink-3">
        Since {fullDay(compared.since)}, when all of them could show, and on the devices they share.
      </p>
    </>
  );
}
