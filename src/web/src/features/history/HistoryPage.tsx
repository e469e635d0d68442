import { useQuery } from '@tanstack/react-query';
import clsx from 'clsx';
import { useState } from 'react';
import { answer, api, type Schemas } from '../../api/client';
import { useStatus, useUndo } from '../../api/hooks';
import { useAccount } from '../../app/account';
import { moment, plural } from '../../app/format';
import { useGo } from '../../app/scope';
import { Button } from '../../ui/Button';
import { ChangeLines } from '../../ui/ChangeLines';
import { Empty, PageHead } from '../../ui/Panel';

/** Every change of the working copy, newest first, and what each one changed. */
export function HistoryPage() {
  const account = useAccount();
  const status = useStatus();
  const { undo, redo } = useUndo();
  const go = useGo();
  const [chosen, setChosen] = useState<number | null>(null);
  const history = useQuery({
    queryKey: [account.id, 'history'],
    queryFn: () =>
      answer(api.GET('/api/accounts/{accountId}/history', { params: { path: { accountId: account.id } } })),
  });
  const step = history.data?.find((each) => each.id === chosen) ?? history.data?.[0];
  const changes = useQuery({
    queryKey: [account.id, 'step', step?.id],
    enabled: step !== undefined,
    queryFn: () =>
      answer(
        api.GET('/api/accounts/{accountId}/history/{stepId}', {
          params: { path: { accountId: account.id, stepId: step?.id ?? 0 } },
        }),
      ),
  });
  return (
    <div className="grid h-full grid-cols-1 min-[900px]:grid-cols-[340px_minmax(0,1fr)]">
      <aside aria-label="Steps" className="flex min-h-0 flex-col border-r border-line-strong bg-sheet">
        <PageHead title="History">
          <Button disabled={!status.data?.undoLabel} onClick={() => void undo()}>
            Undo
          </Button>
          <Button disabled={!status.data?.redoLabel} onClick={() => void redo()}>
            Redo
          </Button>
        </PageHead>
        <ul className="min-h-0 flex-1 overflow-auto">
          {history.data?.map((each) => (
            <li key={each.id}>
              <button
                type="button"
                aria-current={each.id === step?.id ? 'true' : undefined}
                onClick={() => setChosen(each.id)}
                className={clsx(
                  'block w-full border-b border-line-soft px-3 py-1.5 text-left',
                  each.id === step?.id ? 'bg-plum-wash' : 'hover:bg-paper',
                )}
              >
                <span className={clsx('block font-semibold', each.reverted && 'text-ink-3 line-through')}>
                  {each.label}
                </span>
                <span className="text-[12px] text-ink-3">
                  {[moment(each.madeAt), each.person, each.reverted ? 'taken back' : '']
                    .filter(Boolean)
                    .join(' · ')}
                </span>
              </button>
            </li>
          ))}
        </ul>
      </aside>
      <section aria-label="What the step changed" className="min-h-0 overflow-auto bg-sheet">
        {step ? (
          <>
            <PageHead title={step.label} note={plural(step.items, 'item')}>
              <Button onClick={() => go('plan/structure', { step: step.id, campaign: null, adGroup: null })}>
                Show in Structure
              </Button>
            </PageHead>
            <div className="px-3">
              <Changes changes={changes.data} items={step.items} />
            </div>
          </>
        ) : (
          history.data && (
            <Empty title="No steps yet">
              Whatever is changed in the working copy is written down here, and can be taken back.
            </Empty>
          )
        )}
      </section>
    </div>
  );
}

function Changes({ changes, items }: { changes: Schemas['ChangeLine'][] | undefined; items: number }) {
  if (!changes) return <p className="py-3 text-ink-3">Reading…</p>;
  return (
    <>
      <ChangeLines lines={changes} />
      {items > changes.length && <p className="py-2 text-ink-3">and {items - changes.length} more</p>}
    </>
  );
}
