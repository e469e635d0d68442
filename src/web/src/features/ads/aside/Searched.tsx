import type { Schemas } from '../../../api/client';
import { Panel } from '../../../ui/Panel';

/** What texts that insert words make of searches that people made, and of keywords. */
export function Searched({ searched }: { searched: readonly Schemas['SeenWithSearch'][] }) {
  return (
    <Panel title="With real searches">
      <table className="w-full text-[12.5px]">
        <thead className="sr-only">
          <tr>
            <th scope="col">Searched</th>
            <th scope="col">What people see</th>
          </tr>
        </thead>
        <tbody>
          {searched.map((each) => (
            <tr key={`${each.search}-${each.isTyped}`} className="align-top">
              <th scope="row" className="w-1/2 py-0.5 pr-2 text-left font-normal">
                {each.search}
                {!each.isTyped && <span className="text-ink-3"> · keyword</span>}
              </th>
              <td className="py-0.5">
                {each.lines.map((line) => (
                  <span
                    key={`${line.field}-${line.part}`}
                    className={`block ${line.fellBack ? 'text-ink-3' : ''}`}
                  >
                    {line.text}
                    {line.fellBack && ' (does not fit)'}
                  </span>
                ))}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </Panel>
  );
}
