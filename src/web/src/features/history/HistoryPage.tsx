import { useQuery, type UseQueryResult } from '@tanstack/react-query';
import clsx from 'clsx';
import { useState, type KeyboardEvent } from 'react';
import { answer, api, type Schemas } from '../../api/client';
import { useStatus, useUndo } from '../../api/hooks';
import { useAccount } from '../../api/account';
import { moment, plural } from '../../ui/format';
import { useGo } from '../../app/scope';
import { goHome, isHome } from '../../ui/home';
import { Button } from '../../ui/Button';
import { ChangeLines } from '../../ui/ChangeLines';
import { seenAd } from '../../items/SeenAd';
import { Choice } from '../../ui/Choice';
import { Empty, PageHead } from '../../ui/Panel';
import { CompareDialog } from './CompareDialog';
import { NoteDialog, NoteLine, NoteSection } from './Notes';
import { RevertDialog, type Way } from './RevertDialog';
import { useHistory } from './useHistory';
import { inLine, useNotes, type Note } from './useNotes';

const everybody = 'everybody';

/** Every change of the working copy, newest first, what each one changed, and the ways back. */
export function HistoryPage() {
  const account = useAccount();
  const status = useStatus();
  const { undo, redo } = useUndo();
  const go = useGo();
  const [person, setPerson] = useState(everybody);
  const [chosen, setChosen] = useState<string | null>(null);
  const [way, setWay] = useState<Way | 'compare' | null>(null);
  const [writing, setWriting] = useState<Note | 'new' | null>(null);
  const history = useHistory(person === everybody ? null : person);
  const entries = history.data?.pages.flat() ?? [];
  const notes = useNotes().data ?? [];
  // Whoever looks at one person's steps is not shown what others agreed.
  const rows = inLine(entries, person === everybody ? notes : [], history.hasNextPage);
  const row = rows.find((each) => each.key === chosen) ?? rows[0];
  const step = row?.step;
  const people = new Map(entries.map((each) => [each.personId, each.person]));
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
  const canTakeBack = step && !step.reverted && step.canUndo;
  const onKeys = (event: KeyboardEvent) => {
    const now = rows.findIndex((each) => each.key === row?.key);
    const next = { ArrowDown: now + 1, ArrowUp: now - 1, Home: 0, End: rows.length - 1 }[event.key];
    const entry = next === undefined ? undefined : rows[next];
    if (entry) {
      event.preventDefault();
      setChosen(entry.key);
      // The button of the step has the focus once it is the one that may be tabbed to.
      window.requestAnimationFrame(goHome);
    } else if (event.key === 'Enter' && canTakeBack && !event.repeat) {
      event.preventDefault();
      setWay('takeBack');
    }
  };
  return (
    <div className="grid h-full min-h-0 grid-cols-1 max-[899px]:auto-rows-max max-[899px]:overflow-auto min-[900px]:grid-cols-[340px_minmax(0,1fr)]">
      <aside aria-label="Steps" className="flex min-h-0 flex-col border-r border-line-strong bg-sheet">
        <PageHead title="History">
          {(people.size > 1 || person !== everybody) && (
            <Choice
              label="By whom"
              value={person}
              options={[
                { value: everybody, label: 'by everybody' },
                ...[...people].map(([value, name]) => ({ value, label: `by ${name}` })),
              ]}
              onChange={setPerson}
            />
          )}
          <Button disabled={!account.mayChange} onClick={() => setWriting('new')}>
            Write a note…
          </Button>
          <Button disabled={!status.data?.undoLabel || !account.mayChange} onClick={() => void undo()}>
            Undo
          </Button>
          <Button disabled={!status.data?.redoLabel} onClick={() => void redo()}>
            Redo
          </Button>
        </PageHead>
        {history.error && (
          <p role="alert" className="p-3 text-brick">
            {entries.length > 0 ? 'Older steps cannot be read. ' : 'The history cannot be read. '}
            {history.error.message} <Button onClick={() => void history.refetch()}>Read again</Button>
          </p>
        )}
        <ul className="min-h-0 flex-1 overflow-auto" onKeyDown={onKeys}>
          {rows.map((each) => (
            <li key={each.key}>
              <button
                type="button"
                {...(each.key === row?.key ? isHome : {})}
                tabIndex={each.key === row?.key ? 0 : -1}
                aria-current={each.key === row?.key ? 'true' : undefined}
                onClick={() => setChosen(each.key)}
                className={clsx(
                  'block w-full border-b border-line-soft px-3 py-1.5 text-left',
                  each.note && 'border-l-4 border-l-tide',
                  each.key === row?.key ? 'bg-plum-wash' : 'hover:bg-paper',
                )}
              >
                {each.note ? <NoteLine note={each.note} /> : <StepLine step={each.step} />}
              </button>
            </li>
          ))}
          {history.hasNextPage && (
            <li className="p-2 text-center">
              <Button tone="quiet" onClick={() => void history.fetchNextPage()}>
                Older steps
              </Button>
            </li>
          )}
        </ul>
      </aside>
      <section
        aria-label={row?.note ? 'What was agreed' : 'What the step changed'}
        className="min-h-0 overflow-auto bg-sheet"
      >
        {row?.note ? (
          <NoteSection note={row.note} onWrite={setWriting} />
        ) : step ? (
          <>
            <PageHead title={step.label} note={plural(step.items, 'item')} level={2}>
              <Button onClick={() => go('plan/structure', { step: step.id, campaign: null, adGroup: null })}>
                Show in Structure
              </Button>
              <Button onClick={() => setWay('compare')}>Compare…</Button>
              <Button disabled={!canTakeBack} onClick={() => setWay('takeBack')}>
                Undo just this…
              </Button>
              <Button disabled={step.id === entries[0]?.id || !step.canUndo} onClick={() => setWay('goBack')}>
                Go back to here…
              </Button>
            </PageHead>
            <div className="px-3">
              <Changes changes={changes} items={step.items} />
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
      {step && (way === 'takeBack' || way === 'goBack') && (
        <RevertDialog way={way} step={step} onClose={() => setWay(null)} />
      )}
      {writing && <NoteDialog note={writing === 'new' ? null : writing} onClose={() => setWriting(null)} />}
      {step && way === 'compare' && (
        <CompareDialog entries={entries} step={step} onClose={() => setWay(null)} />
      )}
    </div>
  );
}

function StepLine({ step }: { step: Schemas['HistoryEntry'] }) {
  return (
    <>
      <span className={clsx('block font-semibold', step.reverted && 'text-ink-3 line-through')}>
        {step.label}
      </span>
      <span className="text-[12px] text-ink-3">
        {[
          moment(step.madeAt),
          step.person,
          step.reverted ? 'taken back' : '',
          step.canUndo ? '' : 'too old to undo',
        ]
          .filter(Boolean)
          .join(' · ')}
      </span>
    </>
  );
}

interface ChangesProps {
  changes: Pick<UseQueryResult<Schemas['ChangeLine'][]>, 'data' | 'error' | 'refetch'>;
  items: number;
}

function Changes({ changes: { data, error, refetch }, items }: ChangesProps) {
  if (error)
    return (
      <p role="alert" className="py-3 text-brick">
        What this step changed cannot be read. {error.message}{' '}
        <Button onClick={() => void refetch()}>Read again</Button>
      </p>
    );
  if (!data) return <p className="py-3 text-ink-3">Reading…</p>;
  return (
    <>
      <ChangeLines lines={data} showPlace picture={seenAd} />
      {items > data.length && <p className="py-2 text-ink-3">and {items - data.length} more</p>}
    </>
  );
}
