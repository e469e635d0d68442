import clsx from 'clsx';
import { useRef, useState } from 'react';
import type { ItemKind, MatchType, Schemas } from '../../api/client';
import { useKinds } from '../../api/kinds';
import { useMatches } from '../../sheet/editing/WordsDialog';
import { plural, whole } from '../../ui/format';
import { columnsOf } from './columnsOf';
import { rowsOf, useColumnChoices, type IntakeShown } from './IntakeTable';
import { goHome } from '../../ui/home';
import { RadioGroup } from '../../ui/RadioGroup';
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
  shown: IntakeShown;
  onShown: (shown: IntakeShown) => void;
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
export function IntakePanel({
  intake,
  problem,
  busy,
  shown,
  onShown,
  onColumns,
  onKeep,
  onLeave,
  onFilled,
}: Props) {
  const known = useKinds();
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
  const columns = [
    { title: 'new', outcomes: ['new'] },
    { title: 'edit', outcomes: ['edit'] },
    ...(gone > 0 ? [{ title: 'gone', outcomes: ['removed'] } as const] : []),
    { title: 'same', outcomes: ['same'] },
    { title: 'out', outcomes: leftOut },
  ] as const;
  // What stands in columns that are left out is said where a person presses, not in a corner.
  const unused = intake.columns.reduce(
    (sum, name, place) => sum + (name === '' ? (intake.filledCells[place] ?? 0) : 0),
    0,
  );
  const unasked = intake.bareKeywords > 0 && !intake.bareMatchKnown;
  const question = useRef<HTMLDivElement>(null);
  const press = () => {
    if (unasked) question.current?.querySelector<HTMLElement>('input')?.focus();
    else onKeep();
  };
  return (
    <aside
      data-side
      aria-label="What would come in"
      className="flex min-h-0 flex-col border-line-strong max-[899px]:border-t min-[900px]:border-l"
    >
      <div className="flex min-h-0 flex-1 flex-col gap-[11px] overflow-auto p-3">
        <IntakeGaps intake={intake} onFilled={onFilled} />
        {intake.bareKeywords > 0 && (
          <div ref={question}>
            <BareKeywords intake={intake} onColumns={onColumns} />
          </div>
        )}
        <h2 className="text-[15px]">What would come in</h2>
        <RowFilter intake={intake} shown={shown} onShown={onShown} />
        <Panel>
          <table className="w-full">
            <thead>
              <tr className="text-[11.5px] text-ink-3">
                <th aria-label="Kind" />
                {columns.map(({ title }) => (
                  <th key={title} scope="col" className="w-11 text-right font-semibold">
                    {title}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {kinds.map((kind) => (
                <tr key={kind}>
                  <th scope="row" className="py-[2px] text-left font-normal">
                    {known.title(kind)}
                  </th>
                  {columns.map(({ title, outcomes }) => {
                    const count = counted(kind, ...outcomes);
                    return (
                      <td
                        key={title}
                        className={clsx(
                          'text-right',
                          title === 'out' && count > 0 && 'font-semibold text-brick',
                          title === 'same' && 'text-ink-3',
                          title === 'new' && 'font-semibold',
                        )}
                      >
                        {whole(count)}
                      </td>
                    );
                  })}
                </tr>
              ))}
            </tbody>
          </table>
        </Panel>
        <LeftOut intake={intake} onShown={onShown} />
        {intake.contradictions.length > 0 && <Contradictions intake={intake} />}
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
            <button
              type="button"
              className="font-semibold underline"
              onClick={() => onColumns(columnsOf(intake))}
            >
              Read again
            </button>
          </p>
        )}
        <div className="flex gap-2">
          <Button
            data-brings-in
            tone="ember"
            className="flex-1 py-1.5 whitespace-normal"
            disabled={busy || items + gone === 0}
            onClick={press}
          >
            {busy
              ? 'Working…'
              : unasked
                ? `First: what are ${plural(intake.bareKeywords, 'bare keyword')}?`
                : `${deed(items, gone)}${unused > 0 ? `, ${plural(unused, 'filled cell')} unused` : ''}`}
          </Button>
          <Button disabled={busy} onClick={onLeave}>
            Leave
          </Button>
        </div>
      </div>
    </aside>
  );
}

const filters: { shown: IntakeShown; label: string }[] = [
  { shown: 'all', label: 'all rows' },
  { shown: 'new', label: 'new' },
  { shown: 'changed', label: 'changed' },
  { shown: 'removed', label: 'removed' },
  { shown: 'same', label: 'the same' },
  { shown: 'leftOut', label: 'left out' },
];

/** Counts of rows by what becomes of them; each is a filter. */
function RowFilter({ intake, shown, onShown }: Pick<Props, 'intake' | 'shown' | 'onShown'>) {
  return (
    <div role="group" aria-label="Rows shown" className="flex flex-wrap gap-1.5">
      {filters
        .map((filter) => ({ ...filter, count: rowsOf(intake, filter.shown) }))
        .filter(({ shown: each, count }) => count > 0 || each === 'all')
        .map(({ shown: each, label, count }) => (
          <Button
            key={each}
            pressed={each === shown}
            className={each === 'leftOut' && each !== shown ? '!border-brick text-brick' : undefined}
            onClick={() => {
              onShown(each);
              window.requestAnimationFrame(goHome);
            }}
          >
            {whole(count)} {label}
          </Button>
        ))}
    </div>
  );
}

/** What bare keywords are is asked once; the account remembers it. */
function BareKeywords({ intake, onColumns }: Pick<Props, 'intake' | 'onColumns'>) {
  const matches = useMatches();
  const count = plural(intake.bareKeywords, 'keyword');
  const choose = (bareMatch: MatchType) =>
    onColumns({ ...columnsOf(intake), bareMatch, bareMatchChosen: true });
  if (intake.bareMatchKnown)
    return (
      <div className="flex items-center justify-between">
        {count} without a match type {intake.bareKeywords === 1 ? 'is' : 'are'}
        <Choice
          label="Match type of bare keywords"
          value={intake.bareMatch ?? 'broad'}
          options={matches}
          onChange={choose}
        />
      </div>
    );
  return (
    <section aria-label="Bare keywords" className="rounded-lg border border-ochre bg-ochre-wash p-2.5">
      <h3 className="font-body text-[13px] font-semibold">
        {count} {intake.bareKeywords === 1 ? 'has' : 'have'} no match type. Which one?
      </h3>
      <p className="mb-1 text-ink-2">Asked once; this account remembers it.</p>
      <RadioGroup
        label="Match type of bare keywords"
        value={'' as MatchType}
        options={matches.map(({ value, label }) => ({ value, label, hint: suits[value] }))}
        onChange={choose}
      />
    </section>
  );
}

/** What each match type is good for, in the words of the trade. */
const suits: Record<MatchType, string> = {
  exact: 'tight groups',
  phrase: 'targeted lists',
  allWords: 'calls',
  broad: 'big cheap lists',
};

/** Rows that say different things of the same. */
function Contradictions({ intake }: { intake: Schemas['IntakeView'] }) {
  return (
    <Panel title={<WeightMark weight="caution">Rows that contradict each other</WeightMark>}>
      <ul className="space-y-1">
        {intake.contradictions.slice(0, 12).map((each) => (
          <li key={`${each.otherRow}${each.field}`}>
            <b className="font-semibold">{each.name}</b>: {each.field} {each.first} in row {each.firstRow},{' '}
            {each.other} in row {each.otherRow}. Row {each.firstRow} holds.
          </li>
        ))}
        {intake.contradictions.length > 12 && (
          <li className="text-ink-3">and {intake.contradictions.length - 12} more</li>
        )}
      </ul>
    </Panel>
  );
}

function deed(items: number, gone: number): string {
  if (gone === 0) return `Bring in ${plural(items, 'item')}`;
  return items === 0
    ? `Remove ${plural(gone, 'item')}`
    : `Bring in ${plural(items, 'item')}, remove ${whole(gone)}`;
}

/** The first rows that are left out, with their reasons; the list itself is where they are mended. */
function LeftOut({ intake, onShown }: Pick<Props, 'intake' | 'onShown'>) {
  const columns = useColumnChoices().data ?? [];
  const left = rowsOf(intake, 'leftOut');
  if (left === 0) return null;
  const first = intake.refused.slice(0, 6);
  return (
    <Panel title="Left out">
      <ul className="space-y-1">
        {first.map((row) => (
          <li key={row.rowNumber}>
            Row {row.rowNumber} <b className="font-semibold">{named(intake, row, columns)}</b>: {row.reason}
          </li>
        ))}
        {left > first.length && <li className="text-ink-3">and {whole(left - first.length)} more</li>}
      </ul>
      <Button
        className="mt-1.5"
        onClick={() => {
          onShown('leftOut');
          window.requestAnimationFrame(goHome);
        }}
      >
        Mend {plural(left, 'row')} in the list
      </Button>
    </Panel>
  );
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
            onChange={(intent) => onColumns({ ...columnsOf(intake), intent })}
          />
        </div>
        <div className="flex items-center justify-between">
          Empty cells
          <Choice
            label="What empty cells do"
            value={intake.emptyClears ? 'clear' : 'keep'}
            options={empties}
            onChange={(empty) => onColumns({ ...columnsOf(intake), emptyClears: empty === 'clear' })}
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
  const set = (next: Partial<Schemas['IntakeColumns']>) => onColumns({ ...columnsOf(intake), ...next });
  return (
    <Panel title="Where the list does not say">
      <div className="space-y-2">
        <div className="flex items-center justify-between">
          New campaigns arrive
          <Choice
            label="New campaigns arrive"
            value={intake.newPaused ? 'paused' : 'running'}
            options={[
              { value: 'running', label: 'running' },
              { value: 'paused', label: 'paused, until places are set' },
            ]}
            onChange={(state) => set({ newPaused: state === 'paused' })}
          />
        </div>
        <p className="text-ink-2">They start today, unless the list has start dates.</p>
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
