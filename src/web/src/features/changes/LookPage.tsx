import { useEffect, useRef, useState } from 'react';
import { useAccount } from '../../api/account';
import { answer, api, type ItemReference, type Schemas } from '../../api/client';
import { useRefresh } from '../../api/hooks';
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
import { RemarkList } from './said/RemarkList';
import { useLookActs } from './said/useLookActs';
import { ShownCampaign } from './shown/ShownCampaign';

const whole = 'whole';

/** A second look: at changes, or at a campaign that is shown. */
export function LookPage({ lookId }: { lookId: number }) {
  const read = useLook(lookId);
  if (read.isError)
    return (
      <p role="alert" className="p-4 text-brick">
        {read.error.message}
      </p>
    );
  if (!read.data) return <p className="p-4 text-ink-3">Reading…</p>;
  return read.data.look.campaignId == null ? (
    <ChangesLook data={read.data} />
  ) : (
    <ShownCampaign data={read.data} campaignId={read.data.look.campaignId} />
  );
}

/** Just the changes that it is about, what is said of them, and the ways on. */
function ChangesLook({ data }: { data: Schemas['LookAnswer'] }) {
  const lookId = data.look.id;
  const account = useAccount();
  const refresh = useRefresh();
  const go = useGo();
  const [text, setText] = useState('');
  const [about, setAbout] = useState(whole);
  const doing = useLookActs(lookId);
  const { busy, params } = doing;
  const heading = useRef<HTMLHeadingElement>(null);
  const acted = useRef(false);
  // What was pressed gives way to what comes of it: the keyboard stays beside it.
  useEffect(() => {
    if (acted.current && document.activeElement === document.body) heading.current?.focus();
  });
  const done = async (work: Promise<boolean>) => {
    acted.current = true;
    if (!(await work)) return;
    setText('');
    setAbout(whole);
  };
  const { look, lines, remarks } = data;
  const isOver = look.state === 'published' || look.state === 'withdrawn';
  const keyOf = (item: ItemReference) => `${item.kind}:${item.id}`;
  const chosen = lines.find((line) => keyOf(line) === about);
  const item = chosen ? { kind: chosen.kind, id: chosen.id } : null;
  const nameOf = (kind: string, id: number) =>
    lines.find((line) => line.kind === kind && line.id === id)?.name ?? 'a change that is no more';
  const publish = () =>
    done(
      doing.act(async () => {
        await answer(
          api.POST('/api/accounts/{accountId}/looks/{lookId}/publish', {
            params,
            body: { shown: { asOf: data.asOf, items: lines.length } },
          }),
        );
        await refresh(['status', 'pending', 'publishes', 'sheet']);
      }, 'They are on their way to the network.'),
    );
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
        <RemarkList remarks={remarks} nameOf={({ kind, itemId }) => nameOf(kind ?? '', itemId ?? 0)} />
        {!isOver && (
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
                <Button disabled={busy || !text.trim()} onClick={() => void done(doing.say(text, item))}>
                  Say it
                </Button>
                {account.mayPublish && !look.isMine && look.state === 'open' && (
                  <Button
                    disabled={busy || !text.trim()}
                    onClick={() =>
                      void done(
                        doing.act(
                          () =>
                            answer(
                              api.POST('/api/accounts/{accountId}/looks/{lookId}/return', {
                                params,
                                body: { text, about: item },
                              }),
                            ),
                          `${look.askedBy} is told.`,
                        ),
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
              <Button disabled={busy} onClick={() => void done(doing.again('It is asked for once more.'))}>
                Ask once more
              </Button>
            )}
            <Button tone="quiet" disabled={busy} onClick={() => void done(doing.end('It is taken back.'))}>
              Take it back
            </Button>
          </div>
        )}
      </aside>
    </div>
  );
}
