import { Link } from 'react-router';
import { useAccount } from '../../api/account';
import { useCommand } from '../../api/hooks';
import { Button } from '../../ui/Button';
import { WeightMark } from '../../ui/Marks';
import type { AuditFinding, CampaignGoals, ConversionAction } from './useConversions';

interface Props {
  findings: readonly AuditFinding[];
  actions: readonly ConversionAction[];
  campaigns: readonly CampaignGoals[];
  /** The network's tag. */
  tag: string;
  /** How many landing pages were read. */
  pagesRead: number;
}

/** What misleads, the heaviest first, each with what mends it. */
export function FindingList({ findings, actions, campaigns, tag, pagesRead }: Props) {
  const account = useAccount();
  const run = useCommand();
  const seenOf = ({ kind, ids }: AuditFinding['repairs'][number]) =>
    [...(kind === 'campaign' ? campaigns : actions)]
      .filter((each) => ids.includes(each.id))
      .map(({ id, version }) => ({ kind, id, version }));
  return (
    <section aria-label="What misleads">
      <h2 className="mb-1 text-[14px]">What misleads</h2>
      {findings.length === 0 && (
        <p className="text-ink-2">Nothing misleads: every action counts what it should.</p>
      )}
      {pagesRead === 0 && (
        <p className="text-ink-2">
          No landing page has been read yet: whether a tag is missing is known when{' '}
          <Link className="font-semibold text-plum underline" to={`/${account.id}/write/links`}>
            the links are followed
          </Link>
          .
        </p>
      )}
      <ul>
        {findings.map((finding) => {
          const about =
            actions.find((action) => action.id === finding.actionId)?.name ??
            campaigns.find((campaign) => campaign.id === finding.campaignId)?.name;
          return (
            <li
              key={`${finding.code} ${finding.actionId} ${finding.campaignId} ${finding.message}`}
              className="grid grid-cols-[minmax(0,1fr)_auto] items-start gap-x-4 gap-y-1 border-t border-line-soft py-2"
            >
              <div>
                <WeightMark weight={finding.weight}>
                  {about && <b className="text-ink">{about}: </b>}
                  {finding.message}
                </WeightMark>
                <p className="max-w-[88ch] text-ink-2">{finding.advice}</p>
                {finding.code === 'tag-missing' && (
                  <code className="mt-1 block max-w-full overflow-x-auto rounded bg-sunk px-2 py-1 text-[12px]">
                    {tag}
                  </code>
                )}
              </div>
              <div className="flex flex-col items-end gap-1">
                {finding.repairs.map((repair, place) => (
                  <Button
                    key={repair.label}
                    tone={place === 0 && finding.weight === 'blocker' ? 'ember' : 'plain'}
                    onClick={() =>
                      !run.isPending &&
                      run.mutate({
                        type: 'setFields',
                        items: repair.ids.map((id) => ({ kind: repair.kind, id })),
                        values: { [repair.field]: repair.text },
                        seen: seenOf(repair),
                      })
                    }
                  >
                    {repair.label}
                  </Button>
                ))}
              </div>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
