import { useState } from 'react';
import { useAccount } from '../../api/account';
import { plural } from '../../ui/format';
import { useGo } from '../../app/scope';
import type { Schemas } from '../../api/client';
import { Button } from '../../ui/Button';
import { TakeOutDialog } from '../outtake/TakeOutDialog';

interface Props {
  over: boolean;
  problem: string | null;
  last: Schemas['LastIntake'] | null;
  onChoose: () => void;
}

const day = new Intl.DateTimeFormat('en-GB', {
  day: 'numeric',
  month: 'short',
  hour: '2-digit',
  minute: '2-digit',
});

/** Where a list is dropped, and what else there is to do with files. */
export function IntakeWelcome({ over, problem, last, onChoose }: Props) {
  const account = useAccount();
  const go = useGo();
  const [takingOut, setTakingOut] = useState(false);
  return (
    <div className="w-full max-w-xl">
      <div
        className={`rounded-lg border-2 border-dashed p-10 text-center ${over ? 'border-plum bg-plum-wash' : 'border-line-strong bg-sheet'}`}
      >
        <h2 className="text-[20px]">Paste your list here</h2>
        <p className="mx-auto mt-2 max-w-md text-ink-2">
          Copy the cells in your spreadsheet and press <b>Ctrl V</b>, or drop a CSV, TSV, XLSX or JSON file.
          Any order of columns, with or without headers: you see what would come in before anything is kept.
        </p>
        <div className="mt-5 flex justify-center">
          <Button tone="plum" onClick={onChoose}>
            Choose a file…
          </Button>
        </div>
        {problem && (
          <p role="alert" className="mt-5 text-brick">
            {problem}
          </p>
        )}
      </div>
      <dl className="mt-5 grid grid-cols-[1fr_auto] items-center gap-x-4 gap-y-2.5">
        {last && (
          <>
            <dt>
              <b className="font-semibold">{last.fileName}</b> came in last
              <span className="text-ink-3">
                {' '}
                · {plural(last.items, 'item')} · {day.format(new Date(last.madeAt))}
              </span>
            </dt>
            <dd>
              <Button
                className="w-full"
                onClick={() => go('plan/structure', { step: last.stepId, campaign: null, adGroup: null })}
              >
                Show what came in
              </Button>
            </dd>
          </>
        )}
        <dt>
          A workbook to fill in
          <span className="text-ink-3"> · every column, and what stands in it</span>
        </dt>
        <dd>
          <a
            className="block rounded-sm border border-line-strong bg-sheet px-2.5 py-1 text-center font-semibold hover:bg-paper"
            href={`/api/accounts/${account.id}/intakes/template`}
            download
          >
            Download
          </a>
        </dd>
        <dt>
          What is here, as a file
          <span className="text-ink-3"> · change it in a spreadsheet and bring it back</span>
        </dt>
        <dd>
          <Button className="w-full" onClick={() => setTakingOut(true)}>
            Take out…
          </Button>
        </dd>
      </dl>
      {takingOut && <TakeOutDialog onClose={() => setTakingOut(false)} />}
    </div>
  );
}
