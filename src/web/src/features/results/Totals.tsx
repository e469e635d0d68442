import clsx from 'clsx';
import type { Schemas } from '../../api/client';
import { figureOf, useMeasures } from '../../api/measures';
import { change } from '../../ui/format';
import { Tip } from '../../ui/Tip';

interface TotalsProps {
  of: Schemas['MeasureGroup'];
  /** Columns that somebody chose: they stand here too. */
  chosen: readonly string[];
  data: Schemas['ResultsAnswer'];
  figure: string;
  onFigure: (figure: string) => void;
}

/** The figures of a group in sum, beside those of the days before; one of them is looked at. */
export function Totals({ of, chosen, data, figure, onFigure }: TotalsProps) {
  const measures = useMeasures();
  const shown = measures.of(of).filter((each) => each.isUsual || of === 'own' || chosen.includes(each.key));
  if (shown.length === 0) return null;
  return (
    <table className="w-full border-collapse">
      <thead>
        <tr className="text-[11.5px] text-ink-3">
          <th aria-label="Figure" />
          <th scope="col" className="text-right font-semibold">
            now
          </th>
          <th scope="col" className="text-right font-semibold">
            before
          </th>
          <th scope="col" className="text-right font-semibold">
            change
          </th>
        </tr>
      </thead>
      <tbody>
        {shown.map((each) => {
          const value = figureOf(data.total, each.key);
          const on = each.key === figure;
          return (
            <tr key={each.key} className={clsx('border-b border-line-soft', on && 'font-semibold text-plum')}>
              <th scope="row" className="py-1 text-left font-normal">
                <Tip text={each.how}>
                  <button
                    type="button"
                    aria-pressed={on}
                    onClick={() => onFigure(each.key)}
                    className={clsx('rounded-sm text-left hover:underline', on && 'font-semibold')}
                  >
                    {each.title}
                  </button>
                </Tip>
              </th>
              <td className="pl-2 text-right font-semibold">{measures.write(each.key, value.now)}</td>
              <td className={clsx('pl-2 text-right', !on && 'text-ink-3')}>
                {measures.write(each.key, value.before)}
              </td>
              <td className="pl-2 text-right">{change(value.change)}</td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
