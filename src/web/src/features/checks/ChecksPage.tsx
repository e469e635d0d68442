import { useQuery } from '@tanstack/react-query';
import { answer, api, type Schemas } from '../../api/client';
import { useAccount } from '../../api/account';
import { plural } from '../../ui/format';
import { KindNoun } from '../../ui/KindNoun';
import { useGo } from '../../app/scope';
import { Button } from '../../ui/Button';
import { WeightMark } from '../../ui/Marks';
import { Empty, PageHead } from '../../ui/Panel';

const groups: { weight: Schemas['Weight']; title: string; note: string }[] = [
  { weight: 'blocker', title: 'Blockers', note: 'stop publishing' },
  { weight: 'caution', title: 'Cautions', note: 'likely mistakes' },
  { weight: 'hint', title: 'Hints', note: 'good to know' },
];

/** Findings that are mended by adding something. */
const additions: Record<string, string> = { 'no-ads': 'textAd', 'no-keywords': 'keyword' };

/** What the checks found, with a way straight to the fix. */
export function ChecksPage() {
  const account = useAccount();
  const go = useGo();
  const checks = useQuery({
    queryKey: [account.id, 'checks'],
    queryFn: () =>
      answer(api.GET('/api/accounts/{accountId}/checks', { params: { path: { accountId: account.id } } })),
    refetchInterval: ({ state }) => (state.data?.checking ? 500 : false),
  });
  const found = checks.data?.findings ?? [];
  const checking = checks.data?.checking ?? false;
  const blockers = found.filter((finding) => finding.weight === 'blocker').length;
  const fix = (finding: Schemas['NamedFinding']) =>
    go('plan/structure', {
      campaign: finding.campaignId ?? null,
      adGroup: finding.kind === 'campaign' ? null : (finding.adGroupId ?? null),
      focus: `${finding.kind}:${finding.itemId}`,
      field: finding.field ?? null,
      add: additions[finding.code] ?? null,
    });
  return (
    <div className="flex h-full flex-col bg-sheet">
      <PageHead
        title="Checks"
        note={
          checks.data &&
          (checking
            ? 'the newest changes are being looked at…'
            : blockers > 0
              ? `${plural(blockers, 'blocker')} in the way of publishing`
              : 'nothing is in the way of publishing')
        }
      >
        <Button tone="plum" onClick={() => go('ship/changes')}>
          Review changes
        </Button>
      </PageHead>
      <div className="min-h-0 flex-1 overflow-auto">
        {checks.isError && (
          <p role="alert" className="p-3 text-brick">
            {checks.error.message}
          </p>
        )}
        {checks.data && !checking && found.length === 0 && (
          <Empty title="All clear">
            Budgets, bids, lengths, wordings and negatives are checked after each change. Nothing was found.
          </Empty>
        )}
        {groups.map(({ weight, title, note }) => {
          const mine = found.filter((finding) => finding.weight === weight);
          if (mine.length === 0) return null;
          return (
            <section key={weight} aria-label={title}>
              <h2 className="border-b border-line bg-paper px-3 py-1.5 text-[14px]">
                <WeightMark weight={weight}>{title}</WeightMark>{' '}
                <span className="font-body text-base font-normal text-ink-3">
                  {mine.length} · {note}
                </span>
              </h2>
              <ul>
                {mine.map((finding) => (
                  <li
                    key={`${finding.code}${finding.kind}${finding.itemId}${finding.message}`}
                    className="grid grid-cols-[minmax(180px,1fr)_minmax(160px,210px)_minmax(240px,2fr)_auto] items-center gap-3 border-b border-line-soft px-3 py-1.5"
                  >
                    <span className="min-w-0">
                      <span className="text-ink-3">
                        <KindNoun kind={finding.kind} />
                      </span>{' '}
                      <b className="font-semibold">{finding.name}</b>
                      <span className="block truncate text-[12px] text-ink-3">
                        {[finding.campaign, finding.adGroup]
                          .filter((name) => name && name !== finding.name)
                          .join(' / ')}
                      </span>
                    </span>
                    <span>
                      <WeightMark weight={weight}>{finding.message}</WeightMark>
                    </span>
                    <span className="text-ink-2">{finding.detail}</span>
                    <Button
                      aria-label={`Mend: ${finding.name}, ${finding.message}`}
                      onClick={() => fix(finding)}
                    >
                      Mend
                    </Button>
                  </li>
                ))}
              </ul>
            </section>
          );
        })}
      </div>
    </div>
  );
}
