import clsx from 'clsx';
import type { SheetRow } from '../../api/client';
import { useKinds } from '../../api/kinds';
import { useAccount } from '../../api/account';
import { money, percent } from '../../ui/format';
import { ChangeFlag, WeightMark } from '../../ui/Marks';
import { isHome } from '../../ui/home';

interface Props {
  ads: readonly SheetRow[];
  chosen: number | null;
  /** True where ads of several ad groups stand together. */
  placed: boolean;
  onChoose: (ad: SheetRow) => void;
}

/** The ads one below the other, each with where it stands, what it brought and what is the matter with it. */
export function AdList({ ads, chosen, placed, onChoose }: Props) {
  const account = useAccount();
  const kinds = useKinds();
  return (
    <ul aria-label="Ads" className="min-h-0 flex-1 overflow-auto">
      {ads.map((ad, place) => {
        const device = kinds
          .field(ad.kind, 'devicePreference')
          ?.choices.find((choice) => choice.key === ad.values.devicePreference);
        const current = ad.id === chosen;
        const worst = ad.needs?.[0];
        return (
          <li key={ad.id}>
            <button
              type="button"
              {...(current || (chosen === null && place === 0) ? isHome : {})}
              aria-current={current}
              // One stop for Tab; arrows go from ad to ad.
              tabIndex={current ? 0 : -1}
              onClick={() => onChoose(ad)}
              onKeyDown={(event) => {
                if (event.key !== 'ArrowDown' && event.key !== 'ArrowUp') return;
                event.preventDefault();
                const next = ads[place + (event.key === 'ArrowDown' ? 1 : -1)];
                if (!next) return;
                onChoose(next);
                const list = event.currentTarget.closest('ul');
                list?.querySelectorAll('button')[place + (event.key === 'ArrowDown' ? 1 : -1)]?.focus();
              }}
              className={clsx(
                'block w-full border-b border-line px-3 py-2 text-left hover:bg-plum-wash',
                current && 'bg-plum-wash',
              )}
            >
              <span className="flex items-center gap-1.5">
                <ChangeFlag change={ad.change} />
                <b className={clsx('truncate font-semibold', ad.values.state === 'paused' && 'text-ink-3')}>
                  {ad.name || 'no headline yet'}
                </b>
              </span>
              <span className="block truncate text-[12.5px] text-ink-3">
                {[
                  capital(kinds.of(ad.kind).adForm ?? ''),
                  device ? `${device.name} only` : null,
                  ad.values.hours ? String(ad.values.hours) : null,
                  ad.values.state === 'paused' ? 'paused' : null,
                  placed ? `${ad.adGroup ?? ''}, ${ad.campaign ?? ''}` : null,
                ]
                  .filter(Boolean)
                  .join(' · ')}
              </span>
              <span className="block text-[12.5px]">
                {ad.figures && ad.figures.impressions > 0
                  ? `CTR ${percent(ad.figures.ctr, 1)} · ${money(ad.figures.costPerConversion, account)} / conv.`
                  : 'not shown in 28 days'}
              </span>
              {ad.review === 'refused' ? (
                <WeightMark weight="caution">refused by the network</WeightMark>
              ) : (
                worst && <WeightMark weight={worst.weight}>{worst.message}</WeightMark>
              )}
            </button>
          </li>
        );
      })}
    </ul>
  );
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

export const headlinesOf = (ad: SheetRow): string[] =>
  Array.isArray(ad.values.headlines) ? (ad.values.headlines as string[]) : [];
