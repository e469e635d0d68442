import clsx from 'clsx';
import { useAccount } from '../../api/account';
import type { Schemas } from '../../api/client';
import { change } from '../../ui/format';
import { Tip } from '../../ui/Tip';
import { figures, type FigureGroup, type FigureKey } from './figures';

interface TotalsProps {
  of: FigureGroup;
  data: Schemas['ResultsAnswer'];
  figure: FigureKey;
  onFigure: (figure: FigureKey) => void;
}

/** The figures of a group in sum, beside those of the days before; one of them is looked at. */
export function Totals({ of, data, figure, onFigure }: TotalsProps) {
  const account = useAccount();
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
        {figures
          .filter((each) => each.group === of)
          .map((each) => {
            const value = data.total[each.key];
            const on = each.key === figure;
            return (
              <tr
                key={each.key}
                className={clsx('border-b border-line-soft', on && 'font-semibold text-plum')}
              >
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
                <td className="pl-2 text-right font-semibold">{each.write(value.now, account)}</td>
                <td className={clsx('pl-2 text-right', !on && 'text-ink-3')}>
                  {each.write(value.before, account)}
                </td>
                <td className="pl-2 text-right">{change(value.change)}</td>
              </tr>
            );
          })}
      </tbody>
    </table>
  );
}
