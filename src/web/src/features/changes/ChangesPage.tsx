import { useQuery } from '@tanstack/react-query';
import { useState, type KeyboardEvent } from 'react';
import { useSearchParams } from 'react-router';
import { answer, api, type Schemas } from '../../api/client';
import { useAccount } from '../../api/account';
import { useLiveDifferences } from '../../api/liveDifferences';
import { usePageCommands } from '../../app/pageCommands';
import { plural, whole } from '../../ui/format';
import { hasLayer, isHome } from '../../ui/home';
import { Button } from '../../ui/Button';
import { ChangeLines } from '../../ui/ChangeLines';
import { seenAd } from '../../items/SeenAd';
import { Empty, PageHead } from '../../ui/Panel';
import { useTicks } from '../../ui/useTicks';
import { PreviewDialog } from '../../sheet/editing/PreviewDialog';
import { LiveSection, ReadLiveButton } from './LiveSection';
import { AskLookDialog } from './AskLookDialog';
import { LookPage } from './LookPage';
import { PublishPanel } from './PublishPanel';
import { RefusedSection } from './RefusedSection';
import { useHolding } from './useHolding';
import { usePublishing } from './usePublishing';

const keyOf = (line: Schemas['ChangeLine']) => `${line.kind}:${line.id}`;
const none: readonly Schemas['ChangeLine'][] = [];

/** All that differs from the live copy, or what a second look is about. */
export function ChangesPage() {
  const look = Number(useSearchParams()[0].get('look')) || null;
  return look ? <LookPage key={look} lookId={look} /> : <AllChanges />;
}

/** What differs from the live copy: published as a whole or in part, held back or taken back row by row. */
function AllChanges() {
  const account = useAccount();
  const pending = useQuery({
    queryKey: [account.id, 'pending'],
    queryFn: () =>
      answer(api.GET('/api/accounts/{accountId}/pending', { params: { path: { accountId: account.id } } })),
  });
  const undecided = useLiveDifferences().data?.length ?? 0;
  const total = pending.data?.counts.reduce((sum, each) => sum + each.count, 0) ?? 0;
  const lines = pending.data?.lines ?? none;
  const { hold, takingBack, setTakingBack } = useHolding();
  const ticks = useTicks({ items: lines, keyOf, onDelete: () => setTakingBack(true) });
  const chosen = ticks.ticked.map(({ kind, id }) => ({ kind, id }));
  const held = ticks.ticked.filter((line) => line.isHeld);
  const publishing = usePublishing();
  const [asking, setAsking] = useState(false);
  const publish = () => {
    if (!pending.data) return;
    // What is sent is what stands here: what a colleague changed since is looked at first.
    const shown = { asOf: pending.data.asOf, items: goesOut };
    void publishing.publish(chosen.length > 0 ? chosen : null, shown).then((begun) => begun && ticks.none());
  };
  const goesOut = chosen.length > 0 ? chosen.length : (pending.data?.goesOut ?? 0);
  const onKeys = (event: KeyboardEvent) => {
    // A yes in a dialog above the page is a yes to that alone.
    if (event.key !== 'Enter' || !(event.ctrlKey || event.metaKey) || hasLayer()) return;
    if (goesOut === 0 || publishing.job) return;
    event.preventDefault();
    publish();
  };
  usePageCommands([
    { name: `Publish ${plural(goesOut, 'change')}`, keys: 'Ctrl Enter', run: publish },
    ...(chosen.length > 0
      ? [
          {
            name: `Ask for a second look at ${plural(chosen.length, 'change')}`,
            run: () => setAsking(true),
          },
          { name: `Hold back ${plural(chosen.length, 'change')}`, run: () => void hold(chosen, true) },
          {
            name: `Take back ${plural(chosen.length, 'change')}`,
            keys: 'Delete',
            run: () => setTakingBack(true),
          },
        ]
      : []),
  ]);
  return (
    <div
      className="grid h-full min-h-0 grid-cols-1 max-[899px]:auto-rows-max max-[899px]:overflow-auto min-[900px]:grid-cols-[minmax(0,1fr)_320px]"
      onKeyDown={onKeys}
    >
      <section aria-label="Changes" className="flex min-h-0 min-w-0 flex-col bg-sheet">
        <PageHead
          title="Changes"
          note={
            pending.data &&
            `${plural(total, 'item')} ${total === 1 ? 'differs' : 'differ'} from the live copy${pending.data.held > 0 ? `, ${whole(pending.data.held)} held back` : ''}`
          }
        >
          {chosen.length > 0 && (
            <>
              {account.mayChange && <Button onClick={() => setAsking(true)}>Ask for a second look…</Button>}
              {held.length < chosen.length && (
                <Button onClick={() => void hold(chosen, true)}>
                  Hold back {plural(chosen.length - held.length, 'change')}
                </Button>
              )}
              {held.length > 0 && (
                <Button
                  onClick={() =>
                    void hold(
                      held.map(({ kind, id }) => ({ kind, id })),
                      false,
                    )
                  }
                >
                  Let {plural(held.length, 'change')} go
                </Button>
              )}
              <Button tone="brick" onClick={() => setTakingBack(true)}>
                Take back {plural(chosen.length, 'change')}…
              </Button>
            </>
          )}
          <ReadLiveButton />
        </PageHead>
        <div className="min-h-0 flex-1 overflow-auto px-3">
          <LiveSection />
          <RefusedSection />
          {pending.isError && (
            <p role="alert" className="py-3 text-brick">
              {pending.error.message}
            </p>
          )}
          {pending.data && total === 0 && (
            <Empty title={undecided > 0 ? 'Nothing of yours to publish' : 'Nothing to publish'}>
              {undecided > 0
                ? 'What was changed on the network itself waits above: decide whose version holds.'
                : 'The working copy and the live copy are the same.'}
            </Empty>
          )}
          {pending.data && total > 0 && (
            <>
              <div
                {...isHome}
                tabIndex={0}
                role="group"
                aria-label="Changes; Space ticks the one that is marked"
                className="group/list outline-none"
                onKeyDown={ticks.onKeyDown}
              >
                <ChangeLines lines={lines} showPlace ticks={ticks} picture={seenAd} />
              </div>
              {total > lines.length && (
                <p className="py-2 text-ink-3">and {whole(total - lines.length)} more</p>
              )}
            </>
          )}
        </div>
      </section>
      <PublishPanel
        counts={pending.data?.counts ?? []}
        publishing={publishing}
        goesOut={goesOut}
        isPart={chosen.length > 0}
        onPublish={publish}
      />
      {asking && <AskLookDialog items={chosen} onClose={() => setAsking(false)} />}
      {takingBack && (
        <PreviewDialog
          command={{ type: 'takeBackChanges', items: chosen }}
          onClose={() => setTakingBack(false)}
          onDone={() => {
            setTakingBack(false);
            ticks.none();
          }}
        />
      )}
    </div>
  );
}
