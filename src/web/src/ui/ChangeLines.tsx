import type { Schemas } from '../api/client';
import { KindNoun } from './KindNoun';
import { ChangeFlag } from './Marks';

/** Items before and after, field by field. */
export function ChangeLines({
  lines,
  showPlace,
}: {
  lines: readonly Schemas['ChangeLine'][];
  showPlace?: boolean;
}) {
  return (
    <table className="w-full table-fixed border-collapse text-left">
      <colgroup>
        <col className="w-6" />
        <col className="w-[34%]" />
        <col className="w-[15%]" />
        <col />
        <col />
      </colgroup>
      <thead>
        <tr className="border-b border-line-strong text-[11.5px] text-ink-3">
          <th scope="col" className="w-6 py-1" aria-label="Change" />
          <th scope="col" className="py-1 pr-3 font-semibold">
            Item
          </th>
          <th scope="col" className="py-1 pr-3 font-semibold">
            Field
          </th>
          <th scope="col" className="py-1 pr-3 font-semibold">
            Before
          </th>
          <th scope="col" className="py-1 font-semibold">
            After
          </th>
        </tr>
      </thead>
      <tbody>
        {lines.map((line) => (
          <Line key={`${line.kind}${line.id}`} line={line} showPlace={showPlace} />
        ))}
      </tbody>
    </table>
  );
}

function Line({ line, showPlace }: { line: Schemas['ChangeLine']; showPlace?: boolean }) {
  const edited = line.change === 'edited';
  const differences = edited ? line.differences : [];
  const place = showPlace
    ? [line.campaign, line.adGroup].filter((name) => name && name !== line.name).join(' / ')
    : '';
  const rows = Math.max(1, differences.length);
  return Array.from({ length: rows }, (_, number) => {
    const difference = differences[number];
    return (
      <tr key={number} className={number === rows - 1 ? 'border-b border-line-soft align-top' : 'align-top'}>
        {number === 0 && (
          <>
            <td rowSpan={rows} className="py-1">
              <ChangeFlag change={line.change} />
            </td>
            <td rowSpan={rows} className="py-1 pr-3 break-words">
              <span className="text-ink-3">
                <KindNoun kind={line.kind} />
              </span>{' '}
              <b className="font-semibold">{line.name}</b>
              {place && <div className="text-[12px] text-ink-3">{place}</div>}
              {line.reviewReason && <div className="text-brick">Refused last time: {line.reviewReason}</div>}
            </td>
          </>
        )}
        {difference ? (
          <>
            <td className="py-1 pr-3 text-ink-2">{difference.field}</td>
            <td className="py-1 pr-3 break-words text-ink-3">{difference.before ?? '—'}</td>
            <td className="max-w-48 py-1 break-words">{difference.after ?? '—'}</td>
          </>
        ) : (
          <td colSpan={3} className="py-1 text-ink-2">
            {line.change === 'removed' ? 'removed' : summary(line)}
          </td>
        )}
      </tr>
    );
  });
}

/** A new item in one line. */
function summary(line: Schemas['ChangeLine']) {
  const said = line.differences
    .filter(
      (difference) => difference.after && difference.after !== line.name && difference.field !== 'State',
    )
    .map(
      (difference) =>
        `${difference.field.charAt(0).toLowerCase()}${difference.field.slice(1)} ${difference.after ?? ''}`,
    );
  return ['new', ...said].join(', ');
}
