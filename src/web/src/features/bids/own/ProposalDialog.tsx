import { useQuery } from '@tanstack/react-query';
import { useAccount } from '../../../api/account';
import { answer, api, type Schemas } from '../../../api/client';
import { useCommand } from '../../../api/hooks';
import { Button } from '../../../ui/Button';
import { Dialog } from '../../../ui/Dialog';
import { MatchChip } from '../../../ui/Marks';
import { money, plural } from '../../../ui/format';

export type Goal = Schemas['BidGoal'];

interface Props {
  campaignId: number;
  keywords: number[];
  goal: Goal;
  goalName: string;
  ceiling: string;
  onClose: () => void;
}

/** What each keyword would bid, and why, before anything is changed. */
export function ProposalDialog({ campaignId, keywords, goal, goalName, ceiling, onClose }: Props) {
  const account = useAccount();
  const run = useCommand();
  const proposals = useQuery({
    queryKey: [account.id, 'bids', 'proposals', campaignId, keywords, goal, ceiling],
    retry: false,
    queryFn: ({ signal }) =>
      answer(
        api.POST('/api/accounts/{accountId}/bids/campaigns/{campaignId}/proposals', {
          params: { path: { accountId: account.id, campaignId } },
          body: { keywordIds: keywords, goal, ceiling: ceiling.trim() || null },
          signal,
        }),
      ),
  });
  const changed = proposals.data?.filter((each) => each.typed !== null && each.next !== each.now) ?? [];
  const set = () => {
    if (run.isPending) return;
    run.mutate(
      {
        type: 'setCells',
        cells: changed.map((each) => ({
          item: { kind: 'keyword' as const, id: each.id },
          field: 'maxCpc',
          text: each.typed ?? '',
        })),
        seen: changed.map((each) => ({ kind: 'keyword' as const, id: each.id, version: each.version })),
      },
      { onSuccess: onClose },
    );
  };
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title={`Bids ${goalName}`}
      description={
        proposals.data
          ? `${plural(changed.length, 'bid')} would change, ${plural(proposals.data.length - changed.length, 'keyword')} stay as they are.`
          : undefined
      }
      footer={
        <>
          <Button onClick={onClose}>Cancel</Button>
          <Button tone="ember" disabled={changed.length === 0} onClick={set}>
            Set {plural(changed.length, 'bid')}
          </Button>
        </>
      }
    >
      {proposals.isError && (
        <p role="alert" className="text-brick">
          {proposals.error.message}
        </p>
      )}
      {proposals.data && (
        <table className="w-full border-collapse" aria-label="Proposed bids">
          <thead>
            <tr className="border-b border-line-strong text-left text-[12px] text-ink-3">
              <th scope="col" className="py-1 font-semibold">
                Keyword
              </th>
              <th scope="col" className="px-2 text-right font-semibold">
                Now
              </th>
              <th scope="col" className="px-2 text-right font-semibold">
                Then
              </th>
              <th scope="col" className="pl-2 font-semibold">
                Why
              </th>
            </tr>
          </thead>
          <tbody>
            {proposals.data.map((each) => (
              <tr key={each.id} className="h-[27px] border-b border-line-soft">
                <th scope="row" className="text-left font-normal">
                  <span className="flex items-center gap-1.5">
                    {each.match && <MatchChip match={each.match} />} {each.text}
                  </span>
                </th>
                <td className="px-2 text-right">{money(each.now, account)}</td>
                <td className="px-2 text-right font-semibold text-plum">{money(each.next, account)}</td>
                <td className="pl-2 text-[12.5px] text-ink-2">{each.why}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </Dialog>
  );
}
