import { useState } from 'react';
import type { ItemKind, Schemas } from '../../api/client';
import { useKinds } from '../../api/kinds';
import { useMatches } from '../../sheet/editing/WordsDialog';
import { plural, whole } from '../../ui/format';
import { useColumnChoices } from './IntakeTable';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { TextField } from '../../ui/Field';
import { WeightMark } from '../../ui/Marks';
import { Panel } from '../../ui/Panel';
import { IntakeGaps } from './IntakeGaps';

interface Props {
  intake: Schemas['IntakeView'];
  problem: string | null;
  busy: boolean;
  onColumns: (columns: Schemas['IntakeColumns']) => void;
  onKeep: () => void;
  onLeave: () => void;
  onFilled: () => void;
}

const leftOut: Schemas['IntakeOutcome'][] = ['twice', 'refused', 'notThere'];
const intents: { value: Schemas['RowIntent']; label: string }[] = [
  { value: 'addAndChange', label: 'add and change' },
  { value: 'add', label: 'add only' },
  { value: 'change', label: 'change only' },
  { value: 'remove', label: 'remove' },
];
const empties = [
  { value: 'keep' as const, label: 'say nothing' },
  { value: 'clear' as const, label: 'take away' },
];

/** What would come in, what is missing, what is left out; then keep or leave. */
export function IntakePanel({ intake, problem, busy, onColumns, onKeep, onLeave, onFilled }: Props) {
  const known = useKinds();
  const columns = useColumnChoices().data ?? [];
  // Only what the list has is worth a line.
  const kinds = known.all
    .filter((each) => intake.counts.some((count) => count.kind === each.kind))
    .map((each) => each.kind);
  const counted = (kind: ItemKind, ...outcomes: Schemas['IntakeOutcome'][]) =>
    intake.counts
      .filter((each) => each.kind === kind && outcomes.includes(each.outcome))
      .reduce((sum, each) => sum + each.count, 0);
  const items = kinds.reduce((sum, kind) => sum + counted(kind, 'new', 'edit'), 0);
  const gone = kinds.reduce((sum, kind) => sum + counted(kind, 'removed'), 0);
  const left = kinds.reduce((sum, kind) => sum + counted(kind, ...leftOut), 0);
  const titles = ['new', 'edit', ...(gone > 0 ? ['gone'] : []), 'same', 'out'];
  return (
    <aside aria-label="What would come in" className="flex min-h-0 flex-col border-l border-line-strong">
      <div className="flex min-h-0 flex-1 flex-col gap-[11px] overflow-auto p-3">
        <h2 className="text-[15px]">What would come in</h2>
        <Panel>
          <table className="w-full">
            <thead>
              <tr className="text-[11.5px] text-ink-3">
                <th aria-label="Kind" />
                {titles.map((title) => (
                  <th key={title} scope="col" className="w-11 text-right font-semibold">
                    {title}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {kinds.map((kind) => {
                const out = counted(kind, ...leftOut);
                return (
                  <tr key={kind}>
                    <th scope="row" className="py-[2px] text-left font-normal">
                      {known.title(kind)}
                    </th>
                    <td className="text-right font-semibold">{whole(counted(kind, 'new'))}</td>
                    <td className="text-right">{whole(counted(kind, 'edit'))}</td>
                    {gone > 0 && (
                      <td className="text-right font-semibold">{whole(counted(kind, 'removed'))}</td>
                    )}
                    <td className="text-right text-ink-3">{whole(counted(kind, 'same'))}</td>
                    <td className={out > 0 ? 'text-right font-semibold text-brick' : 'text-right'}>
                      {whole(out)}
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        </Panel>
        <IntakeGaps intake={intake} onFilled={onFilled} />
        {left > 0 && (
          <Panel title="Left out">
            <ul className="space-y-1">
              {intake.refused.slice(0, 40).map((row) => (
                <li key={row.rowNumber}>
                  Row {row.rowNumber} <b className="font-semibold">{named(intake, row, columns)}</b>:{' '}
                  {row.reason}
                </li>
              ))}
              {left > 40 && (
                <li className="text-ink-3">and {whole(left - Math.min(40, intake.refused.length))} more</li>
              )}
            </ul>
          </Panel>
        )}
        {intake.cautions.length > 0 && (
          <Panel title="Worth a look">
            <ul className="space-y-1">
              {intake.cautions.slice(0, 12).map((caution) => (
                <li key={`${caution.campaign}/${caution.adGroup}`}>
                  <WeightMark weight="caution" /> Ad group <b className="font-semibold">{caution.adGroup}</b>{' '}
                  {caution.message}
                </li>
              ))}
              {intake.cautions.length > 12 && (
                <li className="text-ink-3">and {intake.cautions.length - 12} more</li>
              )}
            </ul>
          </Panel>
        )}
        <WhatToDo intake={intake} onColumns={onColumns} />
        <TakenForGranted key={intake.id} intake={intake} onColumns={onColumns} />
      </div>
      <div className="space-y-2 border-t border-line p-3">
        {problem && (
          <p role="alert" className="text-brick">
            {problem}{' '}
            <button type="button" className="font-semibold underline" onClick={() => onColumns(intake)}>
              Read again
            </button>
          </p>
        )}
        <div className="flex gap-2">
          <Button
            tone="ember"
            className="flex-1 py-1.5"
            disabled={busy || items + gone === 0}
            onClick={onKeep}
          >
            {busy ? 'Working…' : deed(items, gone)}
          </Button>
          <Button disabled={busy} onClick={onLeave}>
            Leave
          </Button>
        </div>
      </div>
    </aside>
  );
}

function deed(items: number, gone: number): string {
  if (gone === 0) return `Bring in ${plural(items, 'item')}`;
  return items === 0
    ? `Remove ${plural(gone, 'item')}`
    : `Bring in ${plural(items, 'item')}, remove ${whole(gone)}`;
}

/** The words of a row by which a person finds it: what it is, else where it stands. */
function named(
  intake: Schemas['IntakeView'],
  row: Schemas['IntakeListRow'],
  columns: readonly Schemas['ColumnChoice'][],
) {
  const filled = (is: (column: Schemas['ColumnChoice']) => boolean) =>
    columns
      .filter(is)
      .map((column) => row.cells[intake.columns.indexOf(column.name)] ?? '')
      .filter((cell) => cell !== '');
  const names = filled((column) => column.isName);
  const places = filled((column) => column.isPlace && column.form === null);
  const text = names[0] ?? places.at(-1) ?? '';
  return text.length > 50 ? `${text.slice(0, 50)}…` : text;
}

/** What the list does to what is there. */
function WhatToDo({ intake, onColumns }: Pick<Props, 'intake' | 'onColumns'>) {
  return (
    <Panel title="What the list does">
      <div className="space-y-2">
        <div className="flex items-center justify-between">
          {intake.columns.includes('action') ? 'Rows without an action' : 'Its rows'}
          <Choice
            label="What the rows do"
            value={intake.intent ?? 'addAndChange'}
            options={intents}
            onChange={(intent) => onColumns({ ...intake, intent })}
          />
        </div>
        <div className="flex items-center justify-between">
          Empty cells
          <Choice
            label="What empty cells do"
            value={intake.emptyClears ? 'clear' : 'keep'}
            options={empties}
            onChange={(empty) => onColumns({ ...intake, emptyClears: empty === 'clear' })}
          />
        </div>
      </div>
    </Panel>
  );
}

/** What the list does not say and has to be assumed. */
function TakenForGranted({ intake, onColumns }: Pick<Props, 'intake' | 'onColumns'>) {
  const matches = useMatches();
  const [campaign, setCampaign] = useState(intake.defaultCampaign ?? '');
  const [adGroup, setAdGroup] = useState(intake.defaultAdGroup ?? '');
  const set = (next: Partial<Schemas['IntakeColumns']>) => onColumns({ ...intake, ...next });
  return (
    <Panel title="Where the list does not say">
      <div className="space-y-2">
        <div className="flex items-center justify-between">
          Bare keywords are
          <Choice
            label="Match type of bare keywords"
            value={intake.bareMatch ?? 'broad'}
            options={matches}
            onChange={(bareMatch) => set({ bareMatch })}
          />
        </div>
        <div className="flex items-center justify-between">
          Bare negatives are
          <Choice
            label="Match type of bare negatives"
            value={intake.negativeMatch ?? 'phrase'}
            options={matches}
            onChange={(negativeMatch) => set({ negativeMatch })}
          />
        </div>
        <TextField
          label="Campaign of rows without one"
          value={campaign}
          onChange={(event) => setCampaign(event.target.value)}
          onBlur={() => campaign !== (intake.defaultCampaign ?? '') && set({ defaultCampaign: campaign })}
        />
        <TextField
          label="Ad group of rows without one"
          value={adGroup}
          onChange={(event) => setAdGroup(event.target.value)}
          onBlur={() => adGroup !== (intake.defaultAdGroup ?? '') && set({ defaultAdGroup: adGroup })}
        />
      </div>
    </Panel>
  );
}
