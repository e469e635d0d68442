import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useAccount } from '../../api/account';
import { answer, api } from '../../api/client';
import { useCommand } from '../../api/hooks';
import { figureOf, useMeasures } from '../../api/measures';
import { Button } from '../../ui/Button';
import { Empty } from '../../ui/Panel';

import type { ComparedDays } from './period';

export type ReachedBy = 'placement' | 'audience';

const shown = [
  'impressions',
  'clicks',
  'clickThroughRate',
  'averageCpc',
  'cost',
  'conversions',
  'conversionRate',
  'costPerConversion',
];

interface Props {
  by: ReachedBy;
  asked: ComparedDays;
  campaignId: number | null;
  adGroupId: number | null;
}

/** What pages of content sites or audiences brought; a page that brought nothing is left out right here. */
export function ReachedTable({ by, asked: days, campaignId, adGroupId }: Props) {
  const account = useAccount();
  const run = useCommand();
  const measures = useMeasures();
  const asked = {
    by,
    ...days,
    campaignId: campaignId ?? undefined,
    adGroupId: adGroupId ?? undefined,
  };
  const lines = useQuery({
    queryKey: [account.id, 'results', 'reached', asked],
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/accounts/{accountId}/results/reached', {
          params: { path: { accountId: account.id }, query: asked },
          signal,
        }),
      ),
  });
  if (lines.isError)
    return (
      <p role="alert" className="text-brick">
        {lines.error.message}
      </p>
    );
  if (!lines.data) return <p className="text-ink-3">Reading…</p>;
  if (lines.data.length === 0)
    return by === 'placement' ? (
      <Empty title="Nothing showed on content sites">
        Campaigns that show on content sites have the pages here on which their ads were seen.
      </Empty>
    ) : (
      <Empty title="No audience is observed here">
        Add audiences to a campaign or an ad group in Structure: what their people bring stands here from then
        on.
      </Empty>
    );
  const leavesOut = by === 'placement' && campaignId !== null;
  return (
    <div className="rounded-lg border border-line bg-sheet">
      <table className="w-full border-collapse">
        <thead>
          <tr className="border-b border-line-strong text-left text-[11.5px] text-ink-3">
            <th scope="col" className="px-2 py-[5px] font-semibold">
              {by === 'placement' ? 'Page' : 'Audience'}
            </th>
            {shown.map((key) => (
              <th
                key={key}
                scope="col"
                className="px-2 text-right font-semibold"
                title={measures.find(key)?.how}
              >
                {measures.find(key)?.short}
              </th>
            ))}
            {leavesOut && <th scope="col" aria-label="What to do" />}
          </tr>
        </thead>
        <tbody>
          {lines.data.map((line) => (
            <tr key={line.name} className="border-b border-line-soft align-top last:border-0">
              <th scope="row" className="px-2 py-1 text-left font-semibold break-all">
                {line.name}
              </th>
              {shown.map((key) => (
                <td key={key} className="px-2 py-1 text-right">
                  {measures.write(key, figureOf(line.figures, key).now)}
                  <span className="block text-[11.5px] text-ink-3">
                    {measures.write(key, figureOf(line.figures, key).before)}
                  </span>
                </td>
              ))}
              {leavesOut && (
                <td className="px-2 py-1 text-right">
                  <Button
                    tone="quiet"
                    aria-label={`Leave out ${line.name}`}
                    onClick={() => {
                      if (run.isPending) return;
                      run.mutate({
                        type: 'put',
                        kind: 'placement',
                        id: null,
                        values: { text: line.name, side: 'out' },
                        place:
                          adGroupId !== null ? { adGroupIds: [adGroupId] } : { campaignIds: [campaignId] },
                        seen: [],
                      });
                    }}
                  >
                    Leave out
                  </Button>
                </td>
              )}
            </tr>
          ))}
        </tbody>
      </table>
      <p className="border-t border-line-soft p-2 text-[12.5px] text-ink-3">
        Below each figure: the days before.
        {by === 'audience' && ' Somebody may be of several audiences: they do not add up.'}
        {by === 'placement' && !leavesOut && ' Choose a campaign at the top to leave pages out of it.'}
      </p>
    </div>
  );
}
