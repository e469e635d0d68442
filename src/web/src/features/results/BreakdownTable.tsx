import clsx from 'clsx';
import { Fragment } from 'react';
import { figureOf, useMeasures, type Figures } from '../../api/measures';
import { change } from '../../ui/format';
import { TwoBars } from './TwoBars';
import { useBreakdown, type BreakdownAsked, type BreakdownRow } from './useBreakdown';

interface Props {
  asked: BreakdownAsked;
  thenName: string | null;
  figure: string;
  /** Keys of the columns. */
  shown: readonly string[];
  onDrill: ((key: string) => void) | null;
}

/** Figures told apart, by one thing or by two; the chosen figure with bars for both periods. */
export function BreakdownTable({ asked, thenName, figure, shown, onDrill }: Props) {
  const measures = useMeasures();
  const report = useBreakdown(asked);
  if (report.isError)
    return (
      <p role="alert" className="text-brick">
        {report.error.message}
      </p>
    );
  const data = report.data;
  if (!data) return <p className="text-ink-3">Reading…</p>;
  if (data.rows.length === 0)
    return (
      <p className="rounded-lg border border-line bg-sheet p-6 text-center text-ink-2">
        Nothing was shown in these days.
      </p>
    );
  const all = data.rows.flatMap((row) => (row.parts.length > 0 ? row.parts : [row]));
  const most = Math.max(
    1e-9,
    ...all.flatMap((row) => [
      figureOf(row.figures, figure).now ?? 0,
      figureOf(row.figures, figure).before ?? 0,
    ]),
  );
  const cells = (of: Figures) => (
    <>
      {shown.map((key) => (
        <td
          key={key}
          className="px-2 text-right whitespace-nowrap"
          title={`before: ${measures.write(key, figureOf(of, key).before)}`}
        >
          {measures.write(key, figureOf(of, key).now)}
        </td>
      ))}
      <td className="px-2">
        <TwoBars now={figureOf(of, figure).now} before={figureOf(of, figure).before} most={most} />
      </td>
      <td className="px-2 text-right whitespace-nowrap">{change(figureOf(of, figure).change)}</td>
    </>
  );
  const name = (row: BreakdownRow) =>
    onDrill && row.key !== '' ? (
      <button
        type="button"
        className="max-w-full truncate rounded-sm font-semibold text-ink hover:text-plum hover:underline"
        onClick={() => onDrill(row.key)}
      >
        {row.label}
      </button>
    ) : (
      row.label
    );
  return (
    <div className="rounded-lg border border-line bg-sheet">
      <table className="w-full border-collapse">
        <thead>
          <tr className="border-b border-line-strong text-left text-[11.5px] text-ink-3">
            <th scope="col" className="px-2 py-[5px] font-semibold">
              {data.name}
            </th>
            {thenName && (
              <th scope="col" className="px-2 font-semibold">
                {thenName}
              </th>
            )}
            {shown.map((key) => (
              <th
                key={key}
                scope="col"
                className="px-2 text-right font-semibold"
                title={measures.find(key)?.how}
              >
                {measures.find(key)?.short}
              </th>
            ))}
            <th scope="col" className="w-[110px] px-2 font-semibold">
              {measures.titleOf(figure)}
            </th>
            <th scope="col" className="px-2 text-right font-semibold">
              Change
            </th>
          </tr>
        </thead>
        <tbody>
          {data.rows.map((row) => (
            <Fragment key={row.key}>
              <tr className={clsx('h-[27px] border-b border-line-soft', thenName && 'font-semibold')}>
                <th
                  scope="row"
                  className="max-w-[240px] truncate px-2 text-left font-semibold"
                  title={row.label}
                >
                  {name(row)}
                </th>
                {thenName && <td />}
                {cells(row.figures)}
              </tr>
              {row.parts.map((part) => (
                <tr key={part.key} className="h-[27px] border-b border-line-soft">
                  <td />
                  <th scope="row" className="px-2 text-left font-normal text-ink-2 whitespace-nowrap">
                    {part.label}
                  </th>
                  {cells(part.figures)}
                </tr>
              ))}
            </Fragment>
          ))}
        </tbody>
        <tfoot>
          <tr className="h-[27px] border-t border-line-strong font-semibold">
            <th scope="row" className="px-2 text-left">
              Together
            </th>
            {thenName && <td />}
            {cells(data.total)}
          </tr>
        </tfoot>
      </table>
      {data.more && (
        <p className="p-2 text-ink-3">The first {data.rows.length} are shown; the export has all.</p>
      )}
    </div>
  );
}
