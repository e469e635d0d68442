import clsx from 'clsx';
import { useEffect, useRef } from 'react';
import { useAccount } from '../../api/account';
import { count, money, percent, shortDay, whole } from '../../ui/format';
import { isHome } from '../../ui/home';
import { MatchChip } from '../../ui/Marks';
import { Tick } from '../../ui/Tick';
import type { useTicks } from '../../ui/useTicks';
import type { Decision } from './decide/DecideSide';
import { TermFoot } from './TermFoot';
import { rowsOfPage, type SearchTerm, type TermPage, type TermRequest } from './useTerms';

interface Props {
  page: TermPage;
  ticks: ReturnType<typeof useTicks<SearchTerm>>;
  request: TermRequest;
  onChange: (part: Partial<TermRequest>) => void;
  /** What is asked for is still on its way. */
  isLate: boolean;
  /** To the step of a decision; of the one that is shown where none is named. */
  onDecide: (decision: Decision | null) => void;
}

const heads: { name: string; order: TermRequest['order'] | null; end: boolean }[] = [
  { name: 'Search term', order: 'term', end: false },
  { name: 'Came through', order: null, end: false },
  { name: 'Impr.', order: 'impressions', end: true },
  { name: 'Clicks', order: 'clicks', end: true },
  { name: 'Cost', order: 'cost', end: true },
  { name: 'Conv.', order: 'conversions', end: true },
  { name: 'Cost / conv.', order: null, end: true },
  { name: 'Decided', order: null, end: false },
];

const decisionKeys: Partial<Record<string, Decision>> = { k: 'keyword', n: 'negative', l: 'leave' };

/** The terms, ticked to be decided together; the keyboard goes by rows. */
export function TermTable({ page, ticks, request, isLate, onChange, onDecide }: Props) {
  const table = useRef<HTMLTableElement>(null);
  useEffect(() => {
    table.current?.querySelector(`[data-row="${ticks.active}"]`)?.scrollIntoView({ block: 'nearest' });
  }, [ticks.active]);
  const turnPage = (by: number) => {
    const offset = request.offset + by * rowsOfPage;
    if (offset < 0 || offset >= page.count) return;
    onChange({ offset });
    ticks.setActive(0);
  };
  return (
    <>
      <div className="min-h-0 flex-1 overflow-auto">
        <table
          ref={table}
          {...isHome}
          role="grid"
          aria-label="Search terms"
          aria-multiselectable
          aria-activedescendant={page.rows.length > 0 ? `term-${ticks.active}` : undefined}
          tabIndex={0}
          className="w-full border-collapse"
          onKeyDown={(event) => {
            if (event.target !== event.currentTarget || event.ctrlKey || event.altKey || event.metaKey)
              return ticks.onKeyDown(event);
            const decision = decisionKeys[event.key];
            if (decision) onDecide(decision);
            else if (event.key === 'Enter') onDecide(null);
            else if (event.key === 'w')
              document.getElementById('words')?.querySelector<HTMLElement>('[tabindex="0"]')?.focus();
            else if (event.key === 'PageDown') turnPage(1);
            else if (event.key === 'PageUp') turnPage(-1);
            else if (event.key === '/') document.querySelector<HTMLElement>('[data-filter]')?.focus();
            else return ticks.onKeyDown(event);
            event.preventDefault();
          }}
        >
          <thead className="sticky top-0 z-10 bg-sheet">
            <tr className="h-[29px] border-b border-line-strong text-[12px] whitespace-nowrap text-ink-3">
              <th scope="col" className="w-[34px] pl-2.5">
                <Tick
                  label="Choose all of the page"
                  checked={page.rows.length > 0 && ticks.ticked.length === page.rows.length}
                  onChange={() => ticks.all()}
                />
              </th>
              {heads.map((head) => (
                <th
                  key={head.name}
                  scope="col"
                  aria-sort={
                    head.order === request.order
                      ? head.order === 'term'
                        ? 'ascending'
                        : 'descending'
                      : undefined
                  }
                  className={clsx('px-1.5 font-semibold', head.end ? 'text-right' : 'text-left')}
                >
                  {head.order ? (
                    <button
                      type="button"
                      className={clsx(
                        'min-h-[24px] font-semibold',
                        head.order === request.order && 'text-plum-deep',
                      )}
                      onClick={() => head.order && onChange({ order: head.order })}
                    >
                      {head.name}
                      {head.order === request.order && (
                        <span aria-hidden> {head.order === 'term' ? '↑' : '↓'}</span>
                      )}
                    </button>
                  ) : (
                    head.name
                  )}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {page.rows.map((row, at) => (
              <TermRow
                key={row.term}
                row={row}
                at={at}
                isActive={at === ticks.active}
                isTicked={ticks.has(row)}
                showsNew={page.since !== null}
                onActive={() => ticks.setActive(at)}
                onTick={() => ticks.toggle(row)}
              />
            ))}
          </tbody>
        </table>
        {page.rows.length === 0 && (
          <p className="p-4 text-center text-ink-2">
            {request.decided === false
              ? 'Nothing is left to decide here. Show what is decided, or drop a part of the filter.'
              : 'No term is let through by the filter.'}
          </p>
        )}
      </div>
      <TermFoot page={page} isLate={isLate} request={request} onPage={turnPage} />
    </>
  );
}

interface RowProps {
  row: SearchTerm;
  at: number;
  isActive: boolean;
  isTicked: boolean;
  /** Before the first decisions everything is new. */
  showsNew: boolean;
  onActive: () => void;
  onTick: () => void;
}

function TermRow({ row, at, isActive, isTicked, showsNew, onActive, onTick }: RowProps) {
  const account = useAccount();
  return (
    <tr
      id={`term-${at}`}
      data-row={at}
      aria-selected={isTicked}
      className={clsx(
        'h-[27px] border-b border-line-soft',
        isTicked ? 'bg-plum-wash' : isActive && 'bg-paper',
        isActive && 'outline-1 -outline-offset-1 outline-tide',
      )}
      onClick={onActive}
    >
      <td className="pl-2.5 leading-none">
        <Tick label={`Choose ${row.term}`} checked={isTicked} onChange={onTick} />
      </td>
      <th scope="row" className="max-w-[168px] truncate px-1.5 text-left font-semibold" title={row.term}>
        {showsNew && row.isNew && (
          <span
            className="mr-1 rounded-sm bg-tide-wash px-1 text-[11px] font-semibold text-tide"
            title={`First seen on ${shortDay(row.firstSeen)}`}
          >
            new
          </span>
        )}
        {row.term}
      </th>
      <td className="max-w-[154px] px-1.5">
        <CameThrough row={row} />
      </td>
      <td className="px-1.5 text-right">{whole(row.figures.impressions)}</td>
      <td className="px-1.5 text-right">{whole(row.figures.clicks)}</td>
      <td className="px-1.5 text-right whitespace-nowrap">{money(row.figures.cost, account)}</td>
      <td className="px-1.5 text-right" title={`Conversion rate ${percent(row.figures.conversionRate)}`}>
        {count(row.figures.conversions)}
      </td>
      <td className="px-1.5 text-right whitespace-nowrap">{money(row.figures.costPerConversion, account)}</td>
      <td className="max-w-[100px] px-1.5">
        <Decided row={row} />
      </td>
    </tr>
  );
}

function CameThrough({ row }: { row: SearchTerm }) {
  if (row.adGroups > 1) {
    const names = [...new Set(row.parts.map((part) => part.adGroup ?? 'an ad group that is gone'))].join(
      ', ',
    );
    return (
      <span className="block truncate" title={names}>
        <strong>{row.adGroups} groups answer</strong> <span className="text-ink-3">{names}</span>
      </span>
    );
  }
  const part = row.parts[0];
  if (!part?.keyword) return <span className="text-ink-3">a keyword that is gone</span>;
  return (
    <span
      className="flex items-center gap-1.5"
      title={`${part.keyword} in ${part.campaign} / ${part.adGroup}`}
    >
      <span className="truncate">{part.keyword}</span>
      {part.match && <MatchChip match={part.match} />}
    </span>
  );
}

const tones: Record<NonNullable<SearchTerm['decision']>, string> = {
  keyword: 'bg-moss-wash text-moss',
  negative: 'bg-brick-wash text-brick',
  leave: 'bg-sunk text-ink-2',
};

function Decided({ row }: { row: SearchTerm }) {
  if (row.decision)
    return (
      <span
        title={row.said ?? undefined}
        className={clsx(
          'block w-fit max-w-full truncate rounded-sm px-1.5 text-[12px] font-semibold',
          tones[row.decision],
        )}
      >
        {row.said}
      </span>
    );
  if (row.blockedBy)
    return (
      <span
        className="block truncate text-[12px] text-ink-3"
        title={`The negative ${row.blockedBy} keeps it away by now.`}
      >
        kept away by {row.blockedBy}
      </span>
    );
  return row.isKeyword ? <span className="text-[12px] text-ink-3">is a keyword</span> : null;
}
