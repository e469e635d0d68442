import { useQuery } from '@tanstack/react-query';
import { answer, api } from '../../api/client';
import { useAccount } from '../../api/account';
import { plural, whole } from '../../ui/format';
import { ChangeLines } from '../../ui/ChangeLines';
import { Empty, PageHead } from '../../ui/Panel';
import { LiveSection, ReadLiveButton, useLiveDifferences } from './LiveSection';
import { PublishPanel } from './PublishPanel';

/** What differs from the live copy, and publishing it. */
export function ChangesPage() {
  const account = useAccount();
  const pending = useQuery({
    queryKey: [account.id, 'pending'],
    queryFn: () =>
      answer(api.GET('/api/accounts/{accountId}/pending', { params: { path: { accountId: account.id } } })),
  });
  const undecided = useLiveDifferences().data?.length ?? 0;
  const total = pending.data?.counts.reduce((sum, each) => sum + each.count, 0) ?? 0;
  return (
    <div className="grid h-full grid-cols-1 min-[900px]:grid-cols-[minmax(0,1fr)_320px]">
      <section aria-label="Changes" className="flex min-h-0 min-w-0 flex-col bg-sheet">
        <PageHead title="Changes" note={pending.data && `${plural(total, 'item')} differ from the live copy`}>
          <ReadLiveButton />
        </PageHead>
        <div className="min-h-0 flex-1 overflow-auto px-3">
          <LiveSection />
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
              <ChangeLines lines={pending.data.lines} showPlace />
              {total > pending.data.lines.length && (
                <p className="py-2 text-ink-3">and {whole(total - pending.data.lines.length)} more</p>
              )}
            </>
          )}
        </div>
      </section>
      <PublishPanel counts={pending.data?.counts ?? []} total={total} />
    </div>
  );
}
