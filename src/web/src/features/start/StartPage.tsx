import { useQuery } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { answer, api, type Schemas } from '../../api/client';
import { useStatus } from '../../api/hooks';
import { useAccount, useSession } from '../../api/account';
import { useLists } from '../../api/lists';
import { useLiveDifferences } from '../../api/liveDifferences';
import { useRefusals } from '../../api/refusals';
import { change, moment, plural } from '../../ui/format';
import { WeightMark } from '../../ui/Marks';
import { PageHead } from '../../ui/Panel';
import { figureOf, type FigureKey } from '../results/figures';
import { daysOf } from '../results/period';

const watched: FigureKey[] = ['cost', 'clicks', 'conversions', 'costPerConversion'];

/** What needs attention today, most pressing first. */
export function StartPage() {
  const account = useAccount();
  const session = useSession();
  const status = useStatus();
  const refused = useRefusals();
  const undecided = useLiveDifferences().data?.length ?? 0;
  const waiting = useLists().data?.waiting ?? [];
  const newest = status.data?.reportedTo ?? null;
  const days = newest ? daysOf('last7', newest) : null;
  const results = useQuery({
    queryKey: [account.id, 'results', 'start', days],
    enabled: days !== null,
    queryFn: () =>
      answer(
        api.GET('/api/accounts/{accountId}/results', {
          params: {
            path: { accountId: account.id },
            query: { first: days?.first ?? '', last: days?.last ?? '', level: 'campaign' },
          },
        }),
      ),
  });
  // Numbers of before the last step would send people to what is no more.
  const data = status.data?.counting ? undefined : status.data;
  const at = (path: string) => `/${account.id}/${path}`;
  const todo: { key: string; to: string; text: ReactNode; why: string }[] = [];
  if (status.data?.publishStopped)
    todo.push({
      key: 'publish',
      to: at('ship/changes'),
      text: <span className="text-ember">A publish was interrupted</span>,
      why: `${status.data.publishStopped} Send the rest, or give it up.`,
    });
  for (const job of status.data?.setAside ?? [])
    todo.push({
      key: `job${job.id}`,
      to: at(setAside[job.kind]?.page ?? 'ship/changes'),
      text: setAside[job.kind]?.title ?? 'Work set aside',
      why: job.message ?? '',
    });
  if (refused.length > 0)
    todo.push({
      key: 'refused',
      to: at('ship/changes'),
      text: (
        <WeightMark weight="caution">{plural(refused.length, 'item')} refused by the reviewers</WeightMark>
      ),
      why: `${refused[0]?.name ?? ''}: ${refused[0]?.detail ?? ''}${refused.length > 1 ? ` And ${plural(refused.length - 1, 'other')}.` : ''}`,
    });
  if (undecided > 0)
    todo.push({
      key: 'undecided',
      to: at('ship/changes'),
      text: `${plural(undecided, 'item')} changed on the network`,
      why: 'Somebody changed them there. Decide whose version holds.',
    });
  for (const list of waiting)
    todo.push({
      key: `list${list.id}`,
      to: at(`plan/intake?list=${list.id}`),
      text: `“${list.fileName}” waits`,
      why: `${plural(list.rows, 'row')} read ${moment(list.madeAt)}; look and bring it in, or leave it.`,
    });
  if (data && data.blockers > 0)
    todo.push({
      key: 'blockers',
      to: at('ship/checks'),
      text: <WeightMark weight="blocker">{plural(data.blockers, 'blocker')}</WeightMark>,
      why: 'Nothing can be published until they are cleared.',
    });
  if (data && data.cautions > 0)
    todo.push({
      key: 'cautions',
      to: at('ship/checks'),
      text: <WeightMark weight="caution">{plural(data.cautions, 'caution')}</WeightMark>,
      why: 'Likely mistakes, found before they cost money.',
    });
  if (data && data.changes > 0)
    todo.push({
      key: 'changes',
      to: at('ship/changes'),
      text: plural(data.changes, 'change'),
      why: 'In the working copy only: the network does not know of them yet.',
    });
  for (const row of results.data ? worsened(results.data.rows) : [])
    todo.push({
      key: `campaign${row.id}`,
      to: at(`learn/results?campaign=${row.campaignId}&period=last7`),
      text: row.name,
      why: `A conversion cost ${figureOf('costPerConversion').write(row.figures.costPerConversion.now, account)} in the last 7 days, ${change(row.figures.costPerConversion.change)} against the 7 before.`,
    });
  return (
    <div className="h-full bg-sheet">
      <PageHead title={account.name} note={session.person ? `for ${session.person}` : undefined} />
      <div className="mx-auto grid max-w-5xl gap-10 px-6 py-8 min-[900px]:grid-cols-[minmax(0,1fr)_300px]">
        <section aria-labelledby="attention">
          <h2 id="attention" className="mb-2 text-[20px]">
            What needs attention
          </h2>
          {status.data?.counting && <p className="text-ink-2">Counting what the last step changed…</p>}
          {data && todo.length === 0 && (
            <p className="text-ink-2">
              Nothing today. Working copy and live copy are the same, and the checks are clear.
            </p>
          )}
          <ul>
            {todo.map((each) => (
              <li key={each.key} className="border-b border-line-soft">
                <Link
                  to={each.to}
                  className="grid grid-cols-[210px_minmax(0,1fr)] gap-4 rounded-sm px-1 py-2.5 hover:bg-paper"
                >
                  <b className="font-semibold">{each.text}</b>
                  <span className="text-ink-2">{each.why}</span>
                </Link>
              </li>
            ))}
          </ul>
          <p className="mt-6 text-ink-2">
            <Link to={at('plan/intake')} className="font-semibold text-plum underline">
              Bring in a list
            </Link>{' '}
            ·{' '}
            <Link to={at('plan/structure')} className="font-semibold text-plum underline">
              Open the structure
            </Link>
          </p>
        </section>
        <section aria-labelledby="week">
          <h2 id="week" className="mb-2 text-[15px]">
            Last 7 days
          </h2>
          {results.data ? (
            <table className="w-full border-collapse">
              <tbody>
                {watched.map((key) => {
                  const value = results.data.total[key];
                  return (
                    <tr key={key} className="border-b border-line-soft">
                      <th scope="row" className="py-1.5 text-left font-normal">
                        {figureOf(key).title}
                      </th>
                      <td className="text-right font-semibold">{figureOf(key).write(value.now, account)}</td>
                      <td className="w-20 text-right text-ink-3">{change(value.change)}</td>
                    </tr>
                  );
                })}
              </tbody>
            </table>
          ) : (
            data && !newest && <p className="text-ink-2">No results yet.</p>
          )}
        </section>
      </div>
    </div>
  );
}

/** Where work that was set aside is looked after. */
const setAside: Record<string, { title: string; page: string }> = {
  intake: { title: 'A file could not be read', page: 'plan/intake' },
  keep: { title: 'A list could not be kept', page: 'plan/intake' },
  publish: { title: 'A publish came to no end', page: 'ship/changes' },
  clock: { title: 'Reports could not be read', page: 'learn/results' },
};

/** Campaigns whose conversions became a quarter dearer, on figures that are not tiny. */
function worsened(rows: readonly Schemas['ResultsRow'][]) {
  return rows.filter(
    ({ figures }) => (figures.costPerConversion.change ?? 0) > 0.25 && (figures.conversions.before ?? 0) >= 5,
  );
}
