import clsx from 'clsx';
import { useCallback, type ReactNode } from 'react';
import { Link } from 'react-router';
import type { Command, Schemas } from '../../api/client';
import { useAccount } from '../../api/account';
import { count, money, plural, whole } from '../../ui/format';
import { Button } from '../../ui/Button';
import { isHome } from '../../ui/home';
import { MatchChip } from '../../ui/Marks';
import { Empty } from '../../ui/Panel';
import { Tick } from '../../ui/Tick';
import { useTicks } from '../../ui/useTicks';

interface Props {
  report: Schemas['NegativeReport'];
  onPreview: (command: Command) => void;
}

function Where({ negative }: { negative: Schemas['NegativePlace'] }) {
  return (
    <span className="text-ink-2">
      {negative.level === 'list' ? 'list ' : negative.level === 'campaign' ? 'campaign ' : 'ad group '}
      {negative.place}
    </span>
  );
}

function Negative({ negative }: { negative: Schemas['NegativePlace'] }) {
  return (
    <span className="whitespace-nowrap">
      {negative.text} {negative.match && <MatchChip match={negative.match} negative />}
    </span>
  );
}

function Table({ titles, children }: { titles: readonly string[]; children: ReactNode }) {
  return (
    <table className="w-full text-left">
      <thead>
        <tr className="border-b border-line-strong text-[11.5px] text-ink-3">
          {titles.map((title, place) => (
            <th key={place} scope="col" className="py-1 pr-3 font-semibold">
              {title}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>{children}</tbody>
    </table>
  );
}

const removal = (ids: readonly number[]): Command => ({
  type: 'remove',
  items: ids.map((id) => ({ kind: 'negativeKeyword', id })),
});

interface TickedProps<T> {
  rows: readonly T[];
  negativeOf: (row: T) => Schemas['NegativePlace'];
  titles: readonly string[];
  label: string;
  /** Ticked from the start: what is clear to go. */
  all?: boolean;
  onPreview: (command: Command) => void;
  cells: (row: T) => ReactNode;
}

/** Negatives to tick, removed together after one look. */
function TickedNegatives<T>({ rows, negativeOf, titles, label, all, onPreview, cells }: TickedProps<T>) {
  const keyOf = useCallback((row: T) => String(negativeOf(row).id), [negativeOf]);
  const ticks = useTicks({
    items: rows,
    keyOf,
    all,
    onDelete: (ticked) => onPreview(removal(ticked.map((row) => negativeOf(row).id))),
  });
  return (
    <>
      <div className="mb-2 flex flex-wrap items-center gap-2">
        <Button onClick={ticks.all}>
          {ticks.ticked.length === rows.length ? 'Tick none' : `Tick all ${whole(rows.length)}`}
        </Button>
        <Button
          tone="brick"
          disabled={ticks.ticked.length === 0}
          onClick={() => onPreview(removal(ticks.ticked.map((row) => negativeOf(row).id)))}
        >
          Remove {plural(ticks.ticked.length, 'negative')}…
        </Button>
      </div>
      <div
        {...isHome}
        role="group"
        aria-label={`${label}; Space ticks the row that is marked`}
        tabIndex={0}
        className="group/list outline-none"
        onKeyDown={ticks.onKeyDown}
      >
        <Table titles={['', ...titles]}>
          {rows.map((row, place) => (
            <tr
              key={keyOf(row)}
              className={clsx(
                'border-b border-line-soft align-top',
                ticks.has(row) && 'bg-plum-wash',
                place === ticks.active &&
                  'group-focus/list:[&>td]:bg-tide-wash group-focus/list:[&>td:first-child]:shadow-[inset_3px_0_0_var(--color-tide)]',
              )}
            >
              <td className="py-1.5 pr-2 pl-1.5">
                <Tick
                  label={`Tick ${negativeOf(row).text}`}
                  checked={ticks.has(row)}
                  onChange={() => ticks.toggle(row)}
                />
              </td>
              {cells(row)}
            </tr>
          ))}
        </Table>
      </div>
    </>
  );
}

const ofConflict = (conflict: Schemas['NegativeConflict']) => conflict.negative;
const ofNeedless = (needless: Schemas['NeedlessNegative']) => needless.negative;
const ofEffect = (effect: Schemas['NegativeEffect']) => effect.negative;
const cell = 'py-1.5 pr-3';

/** Negatives that keep the account's own keywords from showing, those that cost conversions first. */
export function ConflictsTable({ report, onPreview }: Props) {
  const account = useAccount();
  if (report.conflictCount === 0)
    return (
      <Empty title="No negative blocks an own keyword">
        {plural(report.negatives, 'negative')} were held against {plural(report.keywords, 'keyword')}.
      </Empty>
    );
  return (
    <>
      <p className="mb-2 text-ink-2">
        Held against {plural(report.keywords, 'keyword')}. What the keywords brought in the last 28 days is
        what the negative takes away.
      </p>
      <TickedNegatives
        rows={report.conflicts}
        negativeOf={ofConflict}
        label="Negatives that block own keywords"
        titles={['Negative', 'Where', 'Blocks', 'Conv.', 'Clicks']}
        onPreview={onPreview}
        cells={(conflict) => (
          <>
            <td className={cell}>
              <Negative negative={conflict.negative} />
            </td>
            <td className={cell}>
              <Where negative={conflict.negative} />
            </td>
            <td className={cell}>
              {plural(conflict.keywords, 'keyword')}:{' '}
              {conflict.examples.map((keyword, place) => (
                <span key={keyword.id}>
                  {place > 0 && ', '}
                  <Link
                    className="text-plum underline"
                    to={`/${account.id}/plan/structure?campaign=${keyword.campaignId}&adGroup=${keyword.adGroupId}&focus=keyword:${keyword.id}`}
                  >
                    {keyword.text}
                  </Link>
                </span>
              ))}
              {conflict.keywords > conflict.examples.length && ' …'}
            </td>
            <td className={cell}>{count(conflict.figures.conversions)}</td>
            <td className={cell}>{whole(conflict.figures.clicks)}</td>
          </>
        )}
      />
    </>
  );
}

/** Negatives whose work a broader one does already. */
export function NeedlessTable({ report, onPreview }: Props) {
  if (report.needlessCount === 0)
    return <Empty title="Every negative does work of its own">None is covered by a broader one.</Empty>;
  return (
    <>
      <p className="mb-2 text-ink-2">
        {plural(report.needlessCount, 'negative')} block nothing that a broader one does not block as well.
      </p>
      <TickedNegatives
        all
        rows={report.needless}
        negativeOf={ofNeedless}
        label="Needless negatives"
        titles={['Needless', 'Where', 'The broader one', 'Where']}
        onPreview={onPreview}
        cells={({ negative, broader }) => (
          <>
            <td className={cell}>
              <Negative negative={negative} />
            </td>
            <td className={cell}>
              <Where negative={negative} />
            </td>
            <td className={cell}>
              <Negative negative={broader} />
            </td>
            <td className={cell}>
              <Where negative={broader} />
            </td>
          </>
        )}
      />
    </>
  );
}

/** What the negatives would have held back of what people searched for in the last days. */
export function EffectsTable({ report, onPreview }: Props) {
  const account = useAccount();
  if (report.effects.length === 0)
    return (
      <Empty title="No search of the last 28 days would have been held back">
        Searches from before a negative was published show here with what it would have saved or lost.
      </Empty>
    );
  return (
    <TickedNegatives
      rows={report.effects}
      negativeOf={ofEffect}
      label="Searches that negatives hold back"
      titles={['Negative', 'Where', 'Would have blocked', 'Saved', 'Conversions lost']}
      onPreview={onPreview}
      cells={(effect) => (
        <>
          <td className={cell}>
            <Negative negative={effect.negative} />
          </td>
          <td className={cell}>
            <Where negative={effect.negative} />
          </td>
          <td className={cell}>
            {plural(effect.terms, 'search', 'searches')}: {effect.examples.join(', ')}
          </td>
          <td className={cell}>{money(effect.figures.cost, account)}</td>
          <td className={cell}>{count(effect.figures.conversions)}</td>
        </>
      )}
    />
  );
}
