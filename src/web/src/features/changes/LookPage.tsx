import { useEffect, useRef, useState } from 'react';
import { useAccount } from '../../api/account';
import { answer, api, type ItemReference } from '../../api/client';
import { useAct, useRefresh } from '../../api/hooks';
import { useLook } from '../../api/looks';
import { seenAd } from '../../items/SeenAd';
import { useGo } from '../../app/scope';
import { Button } from '../../ui/Button';
import { ChangeLines } from '../../ui/ChangeLines';
import { Choice } from '../../ui/Choice';
import { TextArea } from '../../ui/Field';
import { moment, plural } from '../../ui/format';
import { isHome } from '../../ui/home';
import { WeightMark } from '../../ui/Marks';
import { PageHead, Panel } from '../../ui/Panel';
import { standing } from './Looks';

const whole = 'whole';

/** A second look: just the changes that it is about, what is said of them, and the ways on. */
export function LookPage({ lookId }: { lookId: number }) {
  const account = useAccount();
  const refresh = useRefresh();
  const go = useGo();
  const [text, setText] = useState('');
  const [about, setAbout] = useState(whole);
  const doing = useAct([account.id, 'looks']);
  const { busy } = doing;
  const read = useLook(lookId);
  const data = read.data;
  const path = { accountId: account.id, lookId };
  const heading = useRef<HTMLHeadingElement>(null);
  const acted = useRef(false);
  // What was pressed gives way to what comes of it: the keyboard stays beside it.
  useEffect(() => {
    if (acted.current && document.activeElement === document.body) heading.current?.focus();
  });
  const act = async (work: () => Promise<unknown>, said: string | null) => {
    acted.current = true;
    if (!(await doing.act(work, said))) return;
    setText('');
    setAbout(whole);
  };
  if (read.isError)
    return (
      <p role="alert" className="p-4 text-brick">
        {read.error.message}
      </p>
    );
  if (!data) return <p className="p-4 text-ink-3">Reading…</p>;
  const { look, lines, remarks } = data;
  const isOver = look.state === 'published' || look.state === 'withdrawn';
  const keyOf = (item: ItemReference) => `${item.kind}:${item.id}`;
  const chosen = lines.find((line) => keyOf(line) === about);
  const body = { text, about: chosen ? { kind: chosen.kind, id: chosen.id } : null };
  const nameOf = (kind: string, id: number) =>
    lines.find((line) => line.kind === kind && line.id === id)?.name ?? 'a change that is no more';
  const publish = () =>
    act(async () => {
      await answer(
        api.POST('/api/accounts/{accountId}/looks/{lookId}/publish', {
          params: { path },
          body: { shown: { asOf: data.asOf, items: lines.length } },
        }),
      );
      await refresh(['status', 'pending', 'publishes', 'sheet']);
    }, 'They are on their way to the network.');
  return (
    <div className="grid h-full min-h-0 grid-cols-1 max-[899px]:auto-rows-max max-[899px]:overflow-auto min-[900px]:grid-cols-[minmax(0,1fr)_340px]">
      <section aria-label="Changes to look at" className="flex min-h-0 min-w-0 flex-col bg-sheet">
        <PageHead
          title={`Second look at ${plural(look.items, 'change')}`}
          note={`asked for by ${look.isMine ? 'you' : look.askedBy}, ${moment(look.madeAt)} · ${standing(look)}`}
        >
          <Button onClick={() => go('ship/changes', { look: null })}>All changes</Button>
        </PageHead>
        <div className="min-h-0 flex-1 overflow-auto px-3">
          {look.note && <p className="max-w-[72ch] py-2 whitespace-pre-wrap">{look.note}</p>}
          {data.gone > 0 && (
            <p className="py-2 text-ink-2">
              {plural(data.gone, 'of these is', 'of these are')} no change any more: published, or taken back.
            </p>
          )}
          {data.changedSince.length > 0 && (
            <p className="py-2">
              <WeightMark weight="caution">
                Changed since it was asked for:{' '}
                {data.changedSince
                  .slice(0, 5)
                  .map((each) => nameOf(each.kind, each.id))
                  .join(', ')}
                {data.changedSince.length > 5 && ` and ${data.changedSince.length - 5} more`}.
              </WeightMark>
            </p>
          )}
          <div
            {...isHome}
            tabIndex={0}
            role="group"
            aria-label="Changes that were asked about, with what they stand in where that is new too"
            className="outline-none"
          >
            <ChangeLines lines={lines} showPlace picture={seenAd} />
          </div>
        </div>
      </section>
      <aside
        data-side
        aria-label="What is said"
        className="flex min-h-0 flex-col gap-3 overflow-auto border-l border-line-strong p-3"
      >
        <h2 ref={heading} tabIndex={-1} className="text-[15px]">
          What is said
        </h2>
        {remarks.length === 0 && <p className="text-ink-2">Nothing yet.</p>}
        <ol className="space-y-2">
          {remarks.map((remark) => (
            <li key={remark.id} className="rounded-sm border border-line bg-sheet p-2">
              {remark.kind && remark.itemId != null && (
                <p className="truncate text-[12px] font-semibold text-plum">
                  {nameOf(remark.kind, remark.itemId)}
                </p>
              )}
              <p className="whitespace-pre-wrap">{remark.text}</p>
              <p className="text-[12px] text-ink-3">
                {remark.person}, {moment(remark.madeAt)}
              </p>
            </li>
          ))}
        </ol>
        {account.mayChange && !isOver && (
          <Panel>
            <div className="space-y-2">
              <Choice
                label="About"
                className="w-full"
                value={chosen ? about : whole}
                options={[
                  { value: whole, label: 'about all of it' },
                  ...lines.slice(0, 200).map((line) => ({ value: keyOf(line), label: `about ${line.name}` })),
                ]}
                onChange={setAbout}
              />
              <TextArea
                label="Your words"
                hideLabel
                rows={3}
                value={text}
                onChange={(event) => setText(event.target.value)}
              />
              <div className="flex flex-wrap gap-2">
                <Button
                  disabled={busy || !text.trim()}
                  onClick={() =>
                    void act(
                      () =>
                        answer(
                          api.POST('/api/accounts/{accountId}/looks/{lookId}/remarks', {
                            params: { path },
                            body,
                          }),
                        ),
                      null,
                    )
                  }
                >
                  Say it
                </Button>
                {account.mayPublish && !look.isMine && look.state === 'open' && (
                  <Button
                    disabled={busy || !text.trim()}
                    onClick={() =>
                      void act(
                        () =>
                          answer(
                            api.POST('/api/accounts/{accountId}/looks/{lookId}/return', {
                              params: { path },
                              body,
                            }),
                          ),
                        `${look.askedBy} is told.`,
                      )
                    }
                  >
                    Return with it
                  </Button>
                )}
              </div>
            </div>
          </Panel>
        )}
        {account.mayPublish && !isOver && (
          <Button
            tone="ember"
            className="py-1.5"
            disabled={busy || lines.length === 0}
            onClick={() => void publish()}
          >
            Publish {plural(lines.length, 'change')}
          </Button>
        )}
        {look.isMine && !isOver && (
          <div className="flex gap-2">
            {look.state === 'returned' && (
              <Button
                disabled={busy}
                onClick={() =>
                  void act(
                    () =>
                      answer(
                        api.POST('/api/accounts/{accountId}/looks/{lookId}/again', { params: { path } }),
                      ),
                    'It is asked for once more.',
                  )
                }
              >
                Ask once more
              </Button>
            )}
            <Button
              tone="quiet"
              disabled={busy}
              onClick={() =>
                void act(
                  () =>
                    answer(
                      api.POST('/api/accounts/{accountId}/looks/{lookId}/withdraw', { params: { path } }),
                    ),
                  'It is taken back.',
                )
              }
            >
              Take it back
            </Button>
          </div>
        )}
      </aside>
    </div>
  );
}
