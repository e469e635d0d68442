import { useEffect, useRef, useState, type DragEvent, type KeyboardEvent } from 'react';
import { useSearchParams } from 'react-router';
import { usePageCommands } from '../../app/pageCommands';
import { plural, whole } from '../../ui/format';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { hasLayer } from '../../ui/home';
import { PageHead } from '../../ui/Panel';
import { Progress } from '../../ui/Progress';
import { columnsOf } from './columnsOf';
import { IntakePanel } from './IntakePanel';
import { IntakeTable } from './IntakeTable';
import type { IntakeShown } from './intakeShown';
import { IntakeWelcome } from './IntakeWelcome';
import { KeptList } from './KeptList';
import { WhichList } from './WhichList';
import { useIntake } from './useIntake';

interface Pasted {
  content: Blob;
  name: string;
}

export function IntakePage() {
  const [parameters] = useSearchParams();
  const intake = useIntake(Number(parameters.get('list')) || null);
  const { view, lists, isShown, send, choose } = intake;
  const [over, setOver] = useState(false);
  const [shown, setShown] = useState<IntakeShown>('all');
  const [pasted, setPasted] = useState<Pasted | null>(null);
  const chooser = useRef<HTMLInputElement>(null);
  const waiting = lists?.waiting ?? [];

  useEffect(() => {
    // Over a list that is open, a person says which of the two is meant.
    const take = (list: Pasted) => {
      setShown('all');
      if (isShown) setPasted(list);
      else void send(list.content, list.name);
    };
    const onPaste = (event: ClipboardEvent) => {
      const target = event.target;
      if (hasLayer() || (target instanceof HTMLElement && /^(INPUT|TEXTAREA)$/.test(target.tagName))) return;
      const file = event.clipboardData?.files[0];
      const text = event.clipboardData?.getData('text/plain') ?? '';
      if (file && !text) take({ content: file, name: file.name });
      else if (text.trim()) take({ content: new Blob([text]), name: 'pasted list' });
    };
    window.addEventListener('paste', onPaste);
    return () => window.removeEventListener('paste', onPaste);
  }, [send, isShown]);

  const take = (file: File | undefined) => {
    setShown('all');
    if (!file) return;
    if (isShown) setPasted({ content: file, name: file.name });
    else void send(file, file.name);
  };
  const onDrop = (event: DragEvent) => {
    event.preventDefault();
    setOver(false);
    take(event.dataTransfer.files[0]);
  };
  const press = () => document.querySelector<HTMLButtonElement>('[data-brings-in]')?.click();
  const onKeys = (event: KeyboardEvent) => {
    if (event.key !== 'Enter' || !(event.ctrlKey || event.metaKey) || hasLayer()) return;
    event.preventDefault();
    press();
  };
  usePageCommands([
    { name: 'Choose a file to bring in', run: () => chooser.current?.click() },
    ...(isShown
      ? [
          { name: 'Bring in what is shown', keys: 'Ctrl Enter', run: press },
          { name: 'Leave this list', run: () => void intake.leave() },
        ]
      : []),
  ]);
  return (
    <div
      className="h-full"
      onKeyDown={onKeys}
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={onDrop}
    >
      <input
        ref={chooser}
        type="file"
        aria-label="List to bring in"
        accept=".csv,.tsv,.txt,.xlsx,.json"
        className="sr-only"
        tabIndex={-1}
        onChange={(event) => {
          const file = event.target.files?.[0];
          event.target.value = '';
          take(file);
        }}
      />
      {view && isShown ? (
        <div className="grid h-full min-h-0 grid-cols-1 max-[899px]:auto-rows-max max-[899px]:overflow-auto min-[900px]:grid-cols-[minmax(0,1fr)_344px]">
          <section aria-label="List" className="flex min-h-0 min-w-0 flex-col bg-sheet max-[899px]:h-[70vh]">
            <PageHead
              title="Intake"
              note={`${view.fileName} · ${whole(view.rowsRead)} rows read${view.encoding ? ` as ${view.encoding}` : ''}${view.remembered ? ' · columns as last time under these headers' : ''}`}
            >
              {waiting.length > 1 && (
                <Choice
                  label={`${waiting.length} lists wait`}
                  value={String(view.id)}
                  options={waiting.map((list) => ({
                    value: String(list.id),
                    label: `${list.fileName}, ${plural(list.rows, 'row')}`,
                  }))}
                  onChange={(id) => choose(Number(id))}
                />
              )}
              <Button onClick={() => chooser.current?.click()}>Other file…</Button>
              <Button
                pressed={view.hasHeader}
                onClick={() =>
                  void intake.setColumns({
                    ...columnsOf(view),
                    hasHeader: !view.hasHeader,
                    columns: [],
                    guessAnew: true,
                  })
                }
              >
                First row is a header
              </Button>
            </PageHead>
            <IntakeTable
              key={`${view.id}${shown}`}
              intake={view}
              shown={shown}
              onColumns={(columns) => void intake.setColumns(columns)}
              onMend={intake.mend}
            />
          </section>
          <IntakePanel
            intake={view}
            problem={intake.problem}
            busy={intake.isWorking}
            shown={shown}
            onShown={setShown}
            onColumns={(columns) => void intake.setColumns(columns)}
            onKeep={() => void intake.keep()}
            onLeave={() => void intake.leave()}
            onFilled={() => void intake.renew()}
          />
        </div>
      ) : (
        <div className="flex h-full flex-col">
          <PageHead
            title="Intake"
            note="a list from a spreadsheet becomes campaigns, ad groups, keywords, negatives and ads"
          />
          <div className="grid flex-1 place-items-center p-6">
            {intake.isBusy ? (
              <div className="w-80 space-y-3 text-center" role="status">
                <p>{intake.uploading ? 'Sending the list…' : `${whole(intake.job?.done ?? 0)} rows read…`}</p>
                <Progress
                  label="Reading the list"
                  done={intake.job?.done ?? 0}
                  total={intake.job?.total ?? null}
                />
                {intake.isWorking && <Button onClick={() => void intake.cancel()}>Cancel</Button>}
              </div>
            ) : view && intake.isKept ? (
              <KeptList intake={view} waiting={waiting} onOther={() => choose(null)} />
            ) : (
              <IntakeWelcome
                over={over}
                problem={intake.problem ?? view?.problem ?? null}
                last={lists?.last ?? null}
                onChoose={() => chooser.current?.click()}
              />
            )}
          </div>
        </div>
      )}
      {pasted && view && (
        <WhichList
          open={view.fileName}
          pasted={pasted.name}
          onBoth={() => {
            setPasted(null);
            void send(pasted.content, pasted.name);
          }}
          onReplace={() => {
            setPasted(null);
            void intake.leave().then(() => send(pasted.content, pasted.name));
          }}
          onClose={() => setPasted(null)}
        />
      )}
    </div>
  );
}
