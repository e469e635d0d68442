import clsx from 'clsx';
import { useRef } from 'react';
import type { ItemKind, Schemas } from '../../api/client';
import { useKinds } from '../../api/kinds';
import { plural, whole } from '../../ui/format';
import { columnsOf } from './columnsOf';
import { rowsOf, type IntakeShown } from './intakeShown';
import { goHome } from '../../ui/home';
import { Button } from '../../ui/Button';
import { WeightMark } from '../../ui/Marks';
import { Panel } from '../../ui/Panel';
import { BareKeywords } from './BareKeywords';
import { IntakeGaps } from './IntakeGaps';
import { Contradictions, LeftOut } from './LeftOut';
import { TakenForGranted, WhatToDo } from './ListAssumptions';

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

function deed(items: number, gone: number): string {
  if (gone === 0) return `Bring in ${plural(items, 'item')}`;
  return items === 0
    ? `Remove ${plural(gone, 'item')}`
    : `Bring in ${plural(items, 'item')}, remove ${whole(gone)}`;
}
