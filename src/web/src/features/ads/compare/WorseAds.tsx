import { useState } from 'react';
import { useAccount } from '../../../api/account';
import { useCommand } from '../../../api/hooks';
import type { Scope } from '../../../app/scope';
import { Button } from '../../../ui/Button';
import { Dialog } from '../../../ui/Dialog';
import { money, percent, plural, whole } from '../../../ui/format';
import { Segments } from '../../../ui/Segments';
import { Tick } from '../../../ui/Tick';
import { measures } from './Standing';
import { useCompared, type Measure } from '../useAds';

interface Props {
  scope: Scope;
  onClose: () => void;
}

/** Ads that are surely worse than the best of their ad group, to be paused together. */
export function WorseAds({ scope, onClose }: Props) {
  const account = useAccount();
  const [by, setBy] = useState<Measure>('clicks');
  const [kept, setKept] = useState<ReadonlySet<number>>(new Set());
  const compared = useCompared(scope, by);
  const run = useCommand();
  const worse = (compared.data ?? []).flatMap((group) =>
    group.ads.filter((ad) => ad.standing === 'worse').map((ad) => ({ group, ad, best: group.ads[0] })),
  );
  const chosen = worse.filter(({ ad }) => !kept.has(ad.adId));
  const open = (compared.data ?? []).flatMap((group) =>
    group.ads.filter((ad) => ad.standing === 'open'),
  ).length;
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title="Ads that are surely worse"
      footer={
        <>
          <Button onClick={onClose}>Leave</Button>
          <Button
            tone="ember"
            disabled={chosen.length === 0 || run.isPending}
            onClick={() =>
              run.mutate(
                {
                  type: 'setFields',
                  items: chosen.map(({ group, ad }) => ({
                    kind: group.kinds[ad.adId] ?? 'textAd',
                    id: ad.adId,
                  })),
                  values: { state: 'paused' },
                },
                { onSuccess: onClose },
              )
            }
          >
            Pause {plural(chosen.length, 'ad')}
          </Button>
        </>
      }
    >
      <Segments label="Compared" value={by} segments={measures} onChange={setBy} />
      <p className="my-2 text-ink-2">
        {worse.length === 0
          ? 'No ad is surely worse than the best of its ad group.'
          : 'Each was up against the best of its ad group on the same days and devices; chance alone would not explain the difference in 95 of 100 such cases.'}{' '}
        {open > 0 && `${plural(open, 'more may be', 'more may be')} worse, and needs time.`}
      </p>
      {worse.length > 0 && (
        <table className="w-full">
          <thead>
            <tr className="border-b border-line-strong text-left text-[12px] text-ink-2">
              <th scope="col" className="py-1" colSpan={2}>
                Ad
              </th>
              <th scope="col" className="px-2 text-right">
                Impressions
              </th>
              <th scope="col" className="px-2 text-right">
                {by === 'clicks' ? 'CTR' : 'Conv. / impr.'}
              </th>
              <th scope="col" className="px-2 text-right">
                Best of its group
              </th>
              <th scope="col" className="px-2 text-right">
                Cost / conv.
              </th>
            </tr>
          </thead>
          <tbody>
            {worse.map(({ group, ad, best }) => (
              <tr key={ad.adId} className="border-b border-line-soft">
                <td className="w-6">
                  <Tick
                    label={`Pause ${group.names[ad.adId] ?? 'this ad'}`}
                    checked={!kept.has(ad.adId)}
                    onChange={(checked) =>
                      setKept((before) => {
                        const next = new Set(before);
                        if (checked) next.delete(ad.adId);
                        else next.add(ad.adId);
                        return next;
                      })
                    }
                  />
                </td>
                <th scope="row" className="py-1 text-left font-normal">
                  <span className="font-semibold">{group.names[ad.adId]}</span>
                  <span className="block text-[12.5px] text-ink-3">
                    {group.campaign} / {group.adGroup}
                  </span>
                </th>
                <td className="px-2 text-right">{whole(ad.figures.impressions)}</td>
                <td className="px-2 text-right">{percent(ad.share, 2)}</td>
                <td className="px-2 text-right">{percent(best?.share, 2)}</td>
                <td className="px-2 text-right">{money(ad.figures.costPerConversion, account)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </Dialog>
  );
}
