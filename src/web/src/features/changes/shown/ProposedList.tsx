import clsx from 'clsx';
import { useRef } from 'react';
import { toast } from 'sonner';
import { useAccount } from '../../../api/account';
import { answer, api, type Schemas } from '../../../api/client';
import { tell, useAct, useRefresh, useUndo } from '../../../api/hooks';
import { sendNamed } from '../../../api/waiting';
import { seenAd } from '../../../items/SeenAd';
import { Button } from '../../../ui/Button';
import { moment, plural } from '../../../ui/format';
import { KindNoun } from '../../../ui/KindNoun';
import { ProposedFlag, WeightMark } from '../../../ui/Marks';

type Proposal = Schemas['ProposalView'];

interface Props {
  lookId: number;
  proposals: readonly Proposal[];
  /** When the newest of them was made: what is proposed otherwise since is looked at first. */
  asOf: string | null | undefined;
  mayDecide: boolean;
  /** Still shown: what one proposed oneself can be taken back. */
  isOpen: boolean;
  onShow: (item: { kind: string; id: number }) => void;
}

/** What is proposed, item by item: taken over, left, or taken back by whoever proposed it. */
export function ProposedList({ lookId, proposals, asOf, mayDecide, isOpen, onShow }: Props) {
  const account = useAccount();
  const refresh = useRefresh();
  const { undo } = useUndo();
  const { act, busy } = useAct([account.id, 'looks']);
  const path = { accountId: account.id, lookId };
  const open = proposals.filter((each) => each.state === 'open');
  const decided = proposals.filter((each) => each.state !== 'open');
  const takable = open.filter((each) => !each.problem);
  const take = (some: readonly Proposal[]) =>
    act(async () => {
      const result = await sendNamed(account.id, (requestId, signal) =>
        answer(
          api.POST('/api/accounts/{accountId}/looks/{lookId}/proposals/take', {
            params: { path, header: { 'X-Fendrik-Request': requestId } },
            body: { proposals: some.map((each) => each.id), asOf },
            signal,
          }),
        ),
      );
      const [refused] = result.refused;
      toast(result.stepId ? result.label : 'Nothing was changed.', {
        description: refused ? `${refused.name}: ${refused.reason}` : undefined,
        action: result.stepId ? { label: 'Undo', onClick: () => void undo().catch(tell) } : undefined,
      });
      await refresh();
    }, null);
  const after = async (work: () => Promise<unknown>, said: string) => {
    await act(work, said);
    await refresh(['sheet', 'totals']);
  };
  const leave = (one: Proposal) =>
    after(
      () =>
        answer(
          api.POST('/api/accounts/{accountId}/looks/{lookId}/proposals/leave', {
            params: { path },
            body: { proposals: [one.id], asOf },
          }),
        ),
      `${one.line.name} stays as it is.`,
    );
  const takeBack = (one: Proposal) =>
    after(
      () =>
        answer(
          api.DELETE('/api/accounts/{accountId}/looks/{lookId}/proposals/{proposalId}', {
            params: { path: { ...path, proposalId: one.id } },
          }),
        ),
      'It is proposed no more.',
    );
  const list = useRef<HTMLOListElement>(null);
  /** What was pressed is gone with its proposal: the keyboard goes on at the one that has come to its place. */
  const stay = (place: number) =>
    window.setTimeout(() => {
      const left = list.current?.querySelectorAll<HTMLElement>('[data-decide]:not([disabled])') ?? [];
      left[Math.min(place, left.length - 1)]?.focus();
    });
  if (proposals.length === 0)
    return (
      <p className="text-ink-2">
        Nothing is proposed yet. Change something in the sheet, or add something with “Propose…”: it stands
        here until somebody takes it over.
      </p>
    );
  return (
    <>
      {mayDecide && takable.length > 1 && (
        <Button tone="ember" className="py-1.5" disabled={busy} onClick={() => void take(takable)}>
          Take over all {takable.length}
        </Button>
      )}
      <ol ref={list} className="space-y-2">
        {open.map((each, place) => (
          <li key={each.id} className="rounded-sm border border-line bg-sheet p-2">
            <Told proposal={each} onShow={onShow} />
            {each.problem && (
              <p className="mt-1">
                <WeightMark weight="caution">{each.problem}</WeightMark>
              </p>
            )}
            {(mayDecide || (each.isMine && isOpen)) && (
              <div className="mt-1.5 flex flex-wrap gap-1.5">
                {mayDecide && (
                  <>
                    <Button
                      disabled={busy || !!each.problem}
                      aria-label={`Take over ${each.line.name}`}
                      data-decide
                      onClick={() => void take([each]).then(() => stay(place))}
                    >
                      Take over
                    </Button>
                    <Button
                      tone="quiet"
                      disabled={busy}
                      aria-label={`Leave ${each.line.name} as it is`}
                      onClick={() => void leave(each).then(() => stay(place))}
                    >
                      Leave
                    </Button>
                  </>
                )}
                {each.isMine && isOpen && (
                  <Button
                    tone="quiet"
                    disabled={busy}
                    aria-label={`Take back what is proposed of ${each.line.name}`}
                    data-decide={mayDecide ? undefined : true}
                    onClick={() => void takeBack(each).then(() => stay(place))}
                  >
                    Take back
                  </Button>
                )}
              </div>
            )}
          </li>
        ))}
      </ol>
      {decided.length > 0 && (
        <section>
          <h3 className="mb-1 font-body text-[12px] font-semibold text-ink-2">
            {plural(decided.length, 'decided', 'decided')}
          </h3>
          <ol className="space-y-2">
            {decided.map((each) => (
              <li key={each.id} className="border-b border-line-soft pb-1.5 text-ink-2">
                <Told proposal={each} onShow={onShow} />
                <p className="text-[12px]">
                  {each.state === 'taken' ? 'taken over' : 'left as it was'}
                  {each.decidedBy && ` by ${each.decidedBy}`}
                  {each.decidedAt && `, ${moment(each.decidedAt)}`}
                </p>
              </li>
            ))}
          </ol>
        </section>
      )}
    </>
  );
}

/** An item and what of it is proposed, in few words. */
function Told({
  proposal: { line, person, madeAt },
  onShow,
}: {
  proposal: Proposal;
  onShow: Props['onShow'];
}) {
  const isNew = line.change === 'new';
  return (
    <>
      <p className="flex items-start gap-1.5">
        <span className="w-3.5 shrink-0">
          <ProposedFlag change={line.change} />
        </span>
        <button
          type="button"
          className="min-w-0 text-left font-semibold break-words hover:underline"
          onClick={() => onShow(line)}
        >
          <span className="font-normal text-ink-3">
            <KindNoun kind={line.kind} />
          </span>{' '}
          {line.name}
        </button>
      </p>
      {line.adGroup && line.adGroup !== line.name && (
        <p className="pl-5 text-[12px] text-ink-3">in {line.adGroup}</p>
      )}
      {line.ad && isNew ? (
        <div className="mt-1">{seenAd(line.ad)}</div>
      ) : line.change === 'removed' ? (
        <p className="pl-5">is to go</p>
      ) : (
        <dl className="space-y-0.5 pl-5">
          {line.differences
            .filter((each) => !isNew || (each.after && each.after !== line.name && each.field !== 'State'))
            .map((each) => (
              <div key={each.field}>
                <dt className="inline text-ink-2">{each.field}: </dt>
                <dd className="inline break-words">
                  {!isNew && (
                    <>
                      <span className={clsx('text-ink-3', each.before && 'line-through')}>
                        {each.before ?? '—'}
                      </span>
                      <span aria-label="becomes"> → </span>
                    </>
                  )}
                  <b className="font-semibold">{each.after ?? '—'}</b>
                </dd>
              </div>
            ))}
        </dl>
      )}
      <p className="pl-5 text-[12px] text-ink-3">
        {person}, {moment(madeAt)}
      </p>
    </>
  );
}
