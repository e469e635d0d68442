import { useState } from 'react';
import { useQuery } from '@tanstack/react-query';
import { useAccount } from '../../../api/account';
import { answer, api } from '../../../api/client';
import { Button } from '../../../ui/Button';
import { Choice } from '../../../ui/Choice';
import { Dialog } from '../../../ui/Dialog';
import { Segments } from '../../../ui/Segments';
import { count, percent, plural } from '../../../ui/format';
import { measures } from './Standing';
import type { Measure } from '../useAds';

/** Two variants, told apart by their labels, over all the ad groups that have both. */
export function VariantsDialog({ onClose }: { onClose: () => void }) {
  const account = useAccount();
  const [chosen, setChosen] = useState<{ one?: string; other?: string }>({});
  const [by, setBy] = useState<Measure>('clicks');
  const labels = useQuery({
    queryKey: [account.id, 'sheet', 'ad-labels'],
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/accounts/{accountId}/ads/labels', {
          params: { path: { accountId: account.id } },
          signal,
        }),
      ),
  });
  const known = labels.data ?? [];
  const one = chosen.one ?? known[0];
  const other = chosen.other ?? known.find((label) => label !== one);
  const compared = useQuery({
    queryKey: [account.id, 'sheet', 'variants', one, other, by],
    enabled: one !== undefined && other !== undefined,
    queryFn: async ({ signal }) =>
      (await answer(
        api.GET('/api/accounts/{accountId}/ads/variants', {
          params: { path: { accountId: account.id }, query: { one: one ?? '', other: other ?? '', by } },
          signal,
        }),
      )) ?? null,
  });
  const told = compared.data;
  const points = (value: number) => `${value >= 0 ? '+' : '−'}${percent(Math.abs(value), 2)}`;
  const options = known.map((label) => ({ value: label, label }));
  return (
    <Dialog
      open
      onClose={onClose}
      title="Variants over many ad groups"
      footer={<Button onClick={onClose}>Close</Button>}
    >
      {labels.data && known.length < 2 && (
        <p className="text-ink-2">
          Variants are told apart by labels: give each variant’s ads one, in Structure or when a pattern makes
          them.
        </p>
      )}
      {one !== undefined && other !== undefined && (
        <div className="flex flex-col gap-3">
          <span className="flex items-center gap-2">
            <Choice
              label="The one"
              value={one}
              options={options}
              onChange={(next) => setChosen({ ...chosen, one: next })}
            />
            against
            <Choice
              label="The other"
              value={other}
              options={options}
              onChange={(next) => setChosen({ ...chosen, other: next })}
            />
          </span>
          <Segments label="Compared" value={by} segments={measures} onChange={setBy} />
          {compared.isError && (
            <p role="alert" className="text-brick">
              {compared.error.message}
            </p>
          )}
          {told === null && <p className="text-ink-3">No ad group has shown both yet.</p>}
          {told && (
            <>
              <table className="w-full">
                <thead>
                  <tr className="border-b border-line-strong text-left text-[12px] text-ink-2">
                    <th scope="col">Variant</th>
                    <th scope="col" className="text-right">
                      Impressions
                    </th>
                    <th scope="col" className="text-right">
                      {by === 'clicks' ? 'CTR' : 'Conv. / impr.'}
                    </th>
                  </tr>
                </thead>
                <tbody>
                  {(
                    [
                      [one, told.one, told.oneShare],
                      [other, told.other, told.otherShare],
                    ] as const
                  ).map(([label, figures, share]) => (
                    <tr key={label} className="border-b border-line">
                      <th scope="row" className="py-1 text-left font-normal">
                        {label}
                      </th>
                      <td className="text-right">{count(figures.impressions)}</td>
                      <td className="text-right">{percent(share, 2)}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
              <p role="status">
                Within {plural(told.adGroups, 'ad group')}, {one} is {points(told.lead)} on average (
                {points(told.interval.low)} to {points(told.interval.high)}, 95 times of a hundred).{' '}
                <b>
                  {told.verdict === 'oneIsBetter'
                    ? `${one} is surely better.`
                    : told.verdict === 'otherIsBetter'
                      ? `${other} is surely better.`
                      : told.verdict === 'open'
                        ? `Not sure yet: about ${plural(told.weeks ?? 1, 'week')} more.`
                        : 'They are alike, as far as a year would show.'}
                </b>
              </p>
            </>
          )}
        </div>
      )}
    </Dialog>
  );
}
