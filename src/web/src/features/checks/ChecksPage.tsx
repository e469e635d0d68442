import { useQuery } from '@tanstack/react-query';
import clsx from 'clsx';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { answer, api, type Command, type ItemReference, type Schemas } from '../../api/client';
import { useKinds } from '../../api/kinds';
import { needsForm } from '../../sheet/editing/bulk';
import { PreviewDialog } from '../../sheet/editing/PreviewDialog';
import { useAccount } from '../../api/account';
import { useCommand } from '../../api/hooks';
import { plural } from '../../ui/format';
import { KindNoun } from '../../ui/KindNoun';
import { useGo } from '../../app/scope';
import { Button } from '../../ui/Button';
import { isHome } from '../../ui/home';
import { WeightMark } from '../../ui/Marks';
import { Tick } from '../../ui/Tick';
import { useTicks } from '../../ui/useTicks';
import { PayerDialog } from '../../items/PayerDialog';
import { OfAccount } from './OfAccount';
import { TogetherBar } from './TogetherBar';
import { Empty, PageHead } from '../../ui/Panel';

const none: readonly Schemas['NamedFinding'][] = [];
const noneOfAccount: readonly Schemas['AccountFinding'][] = [];

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
  const kinds = useKinds();
  const checks = useQuery({
    queryKey: [account.id, 'checks'],
    queryFn: () =>
      answer(api.GET('/api/accounts/{accountId}/checks', { params: { path: { accountId: account.id } } })),
    refetchInterval: ({ state }) => (state.data?.checking ? 500 : false),
  });
  const found = checks.data?.findings ?? none;
  const ofAccount = checks.data?.ofAccount ?? noneOfAccount;
  const [parameters, setParameters] = useSearchParams();
  const [naming, setNaming] = useState(false);
  const checking = checks.data?.checking ?? false;
  const blockers = found.filter((finding) => finding.weight === 'blocker').length;
  const fix = (finding: Schemas['NamedFinding']) =>
    go('plan/structure', {
      // What is written part by part has a cell for each part in the list of its kind.
      view: finding.field && needsForm(kinds, finding.kind) ? finding.kind : null,
      campaign: finding.campaignId ?? null,
      adGroup: finding.kind === 'campaign' ? null : (finding.adGroupId ?? null),
      focus: `${finding.kind}:${finding.itemId}`,
      field: finding.field ?? null,
      add: additions[finding.code] ?? null,
    });
  const run = useCommand();
  const repair = ({ kind, itemId, version, repair: step }: Schemas['NamedFinding']) => {
    if (!step || run.isPending) return;
    run.mutate({
      type: 'setFields',
      items: [{ kind, id: itemId }],
      values: { [step.field]: step.text },
      seen: version == null ? [] : [{ kind, id: itemId, version }],
    });
  };
  const [command, setCommand] = useState<Command | null>(null);
  const ticks = useTicks({
    items: found,
    keyOf,
    onEnter: fix,
    onDelete: (ticked) => setCommand({ type: 'remove', items: itemsOf(ticked) }),
  });
  return (
    <div className="flex h-full min-h-0 flex-col bg-sheet">
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
      {ticks.ticked.length > 0 && <TogetherBar ticked={ticks.ticked} onPreview={setCommand} />}
      <div
        {...isHome}
        role="group"
        aria-label="What the checks found; Enter mends, Space ticks the row that is marked"
        tabIndex={0}
        className="group/list min-h-0 flex-1 overflow-auto outline-none"
        onKeyDown={ticks.onKeyDown}
      >
        {checks.isError && (
          <p role="alert" className="p-3 text-brick">
            {checks.error.message}
          </p>
        )}
        {checks.data && !checking && found.length + ofAccount.length === 0 && (
          <Empty title="All clear">
            Budgets, bids, lengths, wordings and negatives are checked after each change. Nothing was found.
          </Empty>
        )}
        {groups.map(({ weight, title, note }) => {
          const mine = found.filter((finding) => finding.weight === weight);
          const broad = ofAccount.filter((finding) => finding.weight === weight);
          if (mine.length + broad.length === 0) return null;
          return (
            <section key={weight} aria-label={title}>
              <h2 className="border-b border-line bg-paper px-3 py-1.5 text-[14px]">
                <WeightMark weight={weight}>{title}</WeightMark>{' '}
                <span className="font-body text-base font-normal text-ink-3">
                  {mine.length + broad.length} · {note}
                </span>
              </h2>
              <ul>
                {broad.map((finding) => (
                  <OfAccount
                    key={`${finding.code}${finding.savedSearchId ?? ''}`}
                    finding={finding}
                    onPayer={() => setNaming(true)}
                  />
                ))}
                {mine.map((finding) => (
                  <li
                    key={keyOf(finding)}
                    ref={finding === found[ticks.active] ? inSight : undefined}
                    className={clsx(
                      'grid items-center gap-3 border-b border-line-soft px-3 py-1.5',
                      // All rows have the same columns, whatever mends them.
                      found.some((each) => each.repair)
                        ? 'grid-cols-[20px_minmax(140px,1fr)_minmax(130px,210px)_minmax(160px,2fr)_216px]'
                        : 'grid-cols-[20px_minmax(140px,1fr)_minmax(130px,210px)_minmax(160px,2fr)_auto]',
                      ticks.has(finding) && 'bg-plum-wash',
                      finding === found[ticks.active] &&
                        'group-focus/list:bg-tide-wash group-focus/list:shadow-[inset_3px_0_0_var(--color-tide)]',
                    )}
                  >
                    <Tick
                      label={`Tick ${finding.name}, ${finding.message}`}
                      checked={ticks.has(finding)}
                      onChange={() => ticks.toggle(finding)}
                    />
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
                    <span className="flex flex-wrap items-center justify-end gap-1">
                      {finding.repair && (
                        <Button
                          aria-label={`${finding.repair.label}: ${finding.name}`}
                          onClick={() => repair(finding)}
                        >
                          {finding.repair.label}
                        </Button>
                      )}
                      <Button
                        aria-label={`Mend: ${finding.name}, ${finding.message}`}
                        onClick={() => fix(finding)}
                      >
                        Mend
                      </Button>
                    </span>
                  </li>
                ))}
              </ul>
            </section>
          );
        })}
      </div>
      {(naming || parameters.has('payer')) && (
        <PayerDialog
          onClose={() => {
            setNaming(false);
            setParameters((current) => {
              const next = new URLSearchParams(current);
              next.delete('payer');
              return next;
            });
          }}
        />
      )}
      {command && (
        <PreviewDialog
          command={command}
          onClose={() => setCommand(null)}
          onDone={() => {
            setCommand(null);
            ticks.none();
          }}
        />
      )}
    </div>
  );
}

const keyOf = (finding: Schemas['NamedFinding']) =>
  `${finding.code}${finding.kind}${finding.itemId}${finding.message}`;

/** Each item once, however much was found of it. */
function itemsOf(findings: readonly Schemas['NamedFinding'][]): ItemReference[] {
  const items = new Map(findings.map((each) => [`${each.kind}:${each.itemId}`, each]));
  return [...items.values()].map(({ kind, itemId }) => ({ kind, id: itemId }));
}

/** The row under the keyboard is in sight. */
function inSight(row: HTMLElement | null) {
  row?.scrollIntoView({ block: 'nearest' });
}
