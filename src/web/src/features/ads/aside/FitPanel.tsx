import { Link } from 'react-router';
import { useQuery } from '@tanstack/react-query';
import { useAccount } from '../../../api/account';
import { answer, api, type Schemas } from '../../../api/client';
import { moment, percent } from '../../../ui/format';
import { Panel } from '../../../ui/Panel';

const standings: Record<Schemas['PartStanding'], string> = {
  belowAverage: 'below average',
  average: 'average',
  aboveAverage: 'above average',
};

/** Pages that are compared in the panel. */
const mostPages = 5;

/** How well the texts, keywords and pages of an ad group say the same, and what would raise that. */
export function FitPanel({ adGroupId }: { adGroupId: number }) {
  const account = useAccount();
  const fit = useQuery({
    queryKey: [account.id, 'sheet', 'fit', adGroupId],
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/accounts/{accountId}/ad-groups/{adGroupId}/fit', {
          params: { path: { accountId: account.id, adGroupId } },
          signal,
        }),
      ),
  });
  if (!fit.data) return null;
  const { fit: told, converting, readAt } = fit.data;
  const lacking = converting.filter((word) => !word.isSaid);
  return (
    <Panel title="Fit">
      <table className="w-full">
        <tbody>
          <Part name="Text" share={told.textFit} standing={told.textStanding} />
          {told.pageFit !== null && told.pageStanding && (
            <Part name="Page" share={told.pageFit} standing={told.pageStanding} />
          )}
        </tbody>
      </table>
      {lacking.length > 0 && (
        <p className="mt-1 text-ochre">
          ◆ Searches that converted say, and no ad does:{' '}
          {lacking
            .slice(0, 6)
            .map((word) => word.word)
            .join(', ')}
          .
        </p>
      )}
      {told.advice.map((advice) => (
        <p key={advice} className="mt-1 text-ochre">
          ◆ {advice}
        </p>
      ))}
      {readAt ? (
        <>
          <p className="mt-2 text-[12.5px] text-ink-3">
            Pages of the account, the best for this ad group first
          </p>
          <ol>
            {told.pages.slice(0, mostPages).map((page) => (
              <li
                key={page.address}
                className="flex items-baseline gap-2 border-t border-line py-0.5 text-[12.5px]"
              >
                <span
                  className={`min-w-0 flex-1 truncate ${page.isOwn ? 'font-semibold' : ''}`}
                  title={page.title}
                >
                  {page.address.replace(/^https?:\/\//, '')}
                  {page.isOwn && ' · here'}
                </span>
                <span>{percent(page.fit, 0)}</span>
              </li>
            ))}
          </ol>
          <p className="mt-1 text-[12px] text-ink-3">Read {moment(readAt)}</p>
        </>
      ) : (
        <p className="mt-1 text-[12.5px] text-ink-3">
          Pages are not read yet:{' '}
          <Link to={`/${account.id}/write/links`} className="underline">
            Links
          </Link>{' '}
          follows and reads them.
        </p>
      )}
    </Panel>
  );
}

function Part({ name, share, standing }: { name: string; share: number; standing: Schemas['PartStanding'] }) {
  return (
    <tr>
      <th scope="row" className="w-12 py-0.5 text-left font-normal">
        {name}
      </th>
      <td>
        <span aria-hidden className="block h-[7px] rounded-full bg-sunk">
          <span className="block h-full rounded-full bg-plum" style={{ width: `${share * 100}%` }} />
        </span>
      </td>
      <td className="w-32 pl-2 text-right text-[12.5px] whitespace-nowrap text-ink-2">
        {percent(share, 0)} · {standings[standing]}
      </td>
    </tr>
  );
}
