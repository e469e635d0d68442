import { ArrowDown, ArrowUp } from 'lucide-react';
import { Fragment, useMemo, useState } from 'react';
import type { Schemas } from '../../api/client';
import { useKinds } from '../../api/kinds';
import { figureOf, useMeasures } from '../../api/measures';
import { change } from '../../ui/format';
import { MatchChip } from '../../ui/Marks';
import { ConditionCell } from './ConditionCell';
import { QualityCell } from './QualityCell';
import { TwoBars } from './TwoBars';
import type { Condition } from './useConditions';

interface Props {
  data: Schemas['ResultsAnswer'];
  level: Schemas['ItemKind'];
  figure: string;
  /** Keys of the columns. */
  shown: readonly string[];
  hasQuality: boolean;
  /** What campaigns truly do. */
  conditions: readonly Condition[];
  onDrill: (row: Schemas['ResultsRow']) => void;
  onSearches: (row: Schemas['ResultsRow']) => void;
}

/** What is not known sorts below everything. */
const amountOf = (row: Schemas['ResultsRow'], by: string) => figureOf(row.figures, by).now ?? -Infinity;

/** A line for each item; the chosen figure with bars for both periods. */
export function ResultsTable({
  data,
  level,
  figure,
  shown,
  hasQuality,
  conditions,
  onDrill,
  onSearches,
}: Props) {
  const measures = useMeasures();
  const [sort, setSort] = useState<{ by: string; descending: boolean }>({
    by: 'cost',
    descending: true,
  });
  const rows = useMemo(() => {
    const sign = sort.descending ? -1 : 1;
    const by = sort.by;
    return [...data.rows].sort((left, right) =>
      by === 'name'
        ? sign * left.name.localeCompare(right.name)
        : sign * (amountOf(left, by) - amountOf(right, by)),
    );
  }, [data.rows, sort]);
  const most = Math.max(
    1e-9,
    ...rows.flatMap((row) => [
      figureOf(row.figures, figure).now ?? 0,
      figureOf(row.figures, figure).before ?? 0,
    ]),
  );
  const noun = useKinds().noun(level);
  const title = noun.charAt(0).toUpperCase() + noun.slice(1);
  const hasCondition = level === 'campaign' && conditions.length > 0;
  const drills = level === 'campaign' || level === 'adGroup';
  const header = (by: string, text: string, className: string) => (
    <th
      scope="col"
      aria-sort={sort.by === by ? (sort.descending ? 'descending' : 'ascending') : undefined}
      className={`px-2 py-[5px] text-[11.5px] font-semibold text-ink-3 ${className}`}
    >
      <button
        type="button"
        className="rounded-sm font-semibold whitespace-nowrap hover:text-ink"
        onClick={() =>
          setSort((now) => ({ by, descending: now.by === by ? !now.descending : by !== 'name' }))
        }
      >
        {text}
        {sort.by === by &&
          (sort.descending ? (
            <ArrowDown size={11} className="inline" aria-hidden />
          ) : (
            <ArrowUp size={11} className="inline" aria-hidden />
          ))}
      </button>
    </th>
  );
  if (rows.length === 0)
    return (
      <p className="rounded-lg border border-line bg-sheet p-6 text-center text-ink-2">
        Nothing was shown in these days.
      </p>
    );
  return (
    <div className="rounded-lg border border-line bg-sheet">
      <table className="w-full border-collapse">
        <thead>
          <tr className="border-b border-line-strong text-left">
            {header('name', title, '')}
            {hasCondition && (
              <th scope="col" className="px-2 text-[11.5px] font-semibold text-ink-3">
                What it does
              </th>
            )}
            {shown.map((key) => (
              <Fragment key={key}>{header(key, measures.find(key)?.short ?? key, 'text-right')}</Fragment>
            ))}
            {hasQuality && (
              <th scope="col" className="px-2 text-right text-[11.5px] font-semibold text-ink-3">
                Quality
              </th>
            )}
            <th scope="col" className="w-[130px] px-2 text-[11.5px] font-semibold text-ink-3">
              {measures.titleOf(figure)}
            </th>
            <th scope="col" className="px-2 text-right text-[11.5px] font-semibold text-ink-3">
              Change
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => {
            const chosen = figureOf(row.figures, figure);
            return (
              <tr key={row.id} className="border-b border-line-soft last:border-0">
                <th scope="row" className="max-w-[260px] px-2 py-1 text-left font-semibold">
                  {drills ? (
                    <button
                      type="button"
                      className="max-w-full truncate rounded-sm font-semibold text-ink hover:text-plum hover:underline"
                      onClick={() => onDrill(row)}
                    >
                      {row.name}
                    </button>
                  ) : (
                    <span className="flex items-center gap-1.5">
                      <span className="truncate" title={row.name}>
                        {row.name}
                      </span>
                      {row.match && <MatchChip match={row.match} />}
                      {level === 'keyword' && (
                        <button
                          type="button"
                          aria-label={`Searches of ${row.name}`}
                          className="rounded-sm text-[12px] font-normal text-plum underline"
                          onClick={() => onSearches(row)}
                        >
                          searches
                        </button>
                      )}
                    </span>
                  )}
                  {level !== 'campaign' && (
                    <span className="block truncate text-[12px] font-normal text-ink-3">
                      {level === 'adGroup' ? row.campaign : `${row.campaign} / ${row.adGroup ?? ''}`}
                      {row.removed && ' · removed'}
                    </span>
                  )}
                </th>
                {hasCondition && (
                  <ConditionCell condition={conditions.find((each) => each.campaignId === row.id)} />
                )}
                {shown.map((key) => (
                  <td key={key} className="px-2 text-right whitespace-nowrap">
                    {measures.write(key, figureOf(row.figures, key).now)}
                  </td>
                ))}
                {hasQuality && (
                  <td className="px-2 text-right whitespace-nowrap">
                    <QualityCell quality={row.quality ?? null} />
                  </td>
                )}
                <td className="px-2">
                  <TwoBars now={chosen.now} before={chosen.before} most={most} />
                </td>
                <td
                  className="px-2 text-right whitespace-nowrap"
                  title={`before: ${measures.write(figure, chosen.before)}`}
                >
                  {change(chosen.change)}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {data.more && (
        <p className="p-2 text-ink-3">The {rows.length} that cost most are shown; the export has all.</p>
      )}
      <p className="sr-only">{measures.all.map((each) => `${each.title}: ${each.how}`).join(' ')}</p>
    </div>
  );
}
