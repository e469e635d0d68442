import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { answer, api } from '../../api/client';
import { useStatus } from '../../api/hooks';
import { useAccount } from '../../api/account';
import { useLists } from '../../api/lists';
import { useLooks } from '../../api/looks';
import { figureOf, useMeasures } from '../../api/measures';
import { useLiveDifferences } from '../../api/liveDifferences';
import { change, moment, plural } from '../../ui/format';
import { WeightMark } from '../../ui/Marks';
import { PageHead, Panel } from '../../ui/Panel';
import { AllAccounts } from './AllAccounts';
import { MovedBy } from './MovedBy';
import { DeskLine, TodoLine, type Todo } from './DeskLines';
import { useDesk } from './useDesk';
import { WeekBars } from './WeekBars';
import { daysOf } from '../results/period';

const watched = ['cost', 'clicks', 'conversions', 'costPerConversion'];

/** What needs attention today, most pressing first. */
export function StartPage() {
  const account = useAccount();
  const status = useStatus();
  const measures = useMeasures();
  const undecided = useLiveDifferences().data?.length ?? 0;
  const waiting = useLists().data?.waiting ?? [];
  const newest = status.data?.reportedTo ?? null;
  const days = newest ? daysOf('last7', newest) : null;
  const results = useQuery({
    queryKey: [account.id, 'results', 'start', days],
    enabled: days !== null,
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/accounts/{accountId}/results', {
          params: {
            path: { accountId: account.id },
            query: { first: days?.first ?? '', last: days?.last ?? '', level: 'campaign' },
          },
          signal,
        }),
      ),
  });
  // Numbers of before the last step would send people to what is no more.
  const data = status.data?.counting ? undefined : status.data;
  const title = `${weekdayOf(status.data?.networkTime ?? null)} desk`;
  const at = (path: string) => `/${account.id}/${path}`;
  const todo: Todo[] = [];
  const desk = useDesk();
  const looks = useLooks().data ?? [];
  if (status.data?.publishStopped)
    todo.push({
      key: 'publish',
      isFirst: true,
      to: at('ship/changes'),
      text: <span className="text-ember">A publish was interrupted</span>,
      why: `${status.data.publishStopped} Send the rest, or give it up.`,
    });
  for (const look of looks) {
    // To publishers those that wait, and to whoever asked those that came back.
    if (look.campaignId != null) {
      if (look.state !== 'open' || (look.isMine && look.proposed === 0)) continue;
      const waits = plural(look.proposed, 'proposal');
      todo.push({
        key: `look${look.id}`,
        isFirst: look.isMine,
        to: at(`ship/changes?look=${look.id}`),
        text: look.isMine
          ? `${waits} for ${look.campaign ?? 'a campaign that is gone'}`
          : `${look.askedBy} shows ${look.campaign ?? 'a campaign that is gone'}`,
        why: look.isMine
          ? 'Take over what you like, item by item, or leave it.'
          : look.note || 'Say what you think of it, or propose changes.',
      });
      continue;
    }
    const isFor =
      look.state === 'open' ? account.mayPublish && !look.isMine : look.state === 'returned' && look.isMine;
    if (!isFor) continue;
    todo.push({
      key: `look${look.id}`,
      isFirst: true,
      to: at(`ship/changes?look=${look.id}`),
      text: look.isMine
        ? `Your second look came back from ${look.answeredBy ?? 'a publisher'}`
        : `${look.askedBy} asks for a second look at ${plural(look.items, 'change')}`,
      why: look.isMine
        ? 'Read what is said, change it, and ask once more.'
        : look.note || 'Publish them, or return them with a word.',
    });
  }
  for (const job of status.data?.setAside ?? [])
    todo.push({
      key: `job${job.id}`,
      isFirst: true,
      to: at(setAside[job.kind]?.page ?? 'ship/changes'),
      text: setAside[job.kind]?.title ?? 'Work set aside',
      why: job.message ?? '',
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
      isFirst: true,
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
  const items = desk.data?.items ?? [];
  // What stops everything goes first, then the money, then the rest.
  const first = todo.filter((each) => each.isFirst);
  const rest = todo.filter((each) => !each.isFirst);
  return (
    <div className="h-full overflow-auto bg-sheet">
      <PageHead title={title} note={`${account.name} · what is worth doing first, by the money in it`} />
      <div className="grid gap-4 py-3 pl-4 pr-3 min-[900px]:grid-cols-[minmax(0,1fr)_344px]">
        <section aria-labelledby="attention" className="min-w-0">
          <h2 id="attention" className="sr-only">
            What needs attention
          </h2>
          {status.data?.counting && <p className="text-ink-2">Counting what the last step changed…</p>}
          {desk.isError && (
            <p role="alert" className="text-brick">
              {desk.error.message}
            </p>
          )}
          {desk.isPending && <p className="text-ink-3">Looking through the account…</p>}
          {data && desk.data && todo.length + items.length === 0 && (
            <p className="text-ink-2">
              Nothing today. Working copy and live copy are the same, and the checks are clear.
            </p>
          )}
          <ul>
            {first.map((each) => (
              <TodoLine key={each.key} todo={each} />
            ))}
            {items.map((item) => (
              <DeskLine key={`${item.topic}${item.title}`} item={item} at={at} />
            ))}
            {rest.map((each) => (
              <TodoLine key={each.key} todo={each} />
            ))}
          </ul>
          <p className="mt-6 text-ink-2">
            <Link to={at('plan/intake')} className="font-semibold text-plum underline">
              Bring in a list
            </Link>{' '}
            ·{' '}
            <Link to={at('plan/structure')} className="font-semibold text-plum underline">
              Open the structure
            </Link>{' '}
            ·{' '}
            <a
              href={`/api/accounts/${account.id}/desk/digest`}
              download
              className="font-semibold text-plum underline"
            >
              Download as a digest
            </a>
          </p>
        </section>
        <aside aria-label="How it goes" className="flex flex-col gap-3">
          <Panel title="Last 7 days, beside the 7 before">
            {results.data ? (
              <>
                <table className="w-full border-collapse">
                  <tbody>
                    {watched.map((key) => {
                      const value = figureOf(results.data.total, key);
                      return (
                        <tr key={key} className="border-b border-line-soft">
                          <th scope="row" className="py-1 text-left font-normal">
                            {measures.titleOf(key)}
                          </th>
                          <td className="text-right font-semibold">{measures.write(key, value.now)}</td>
                          <td className="w-20 text-right text-ink-3">{change(value.change)}</td>
                        </tr>
                      );
                    })}
                  </tbody>
                </table>
                <WeekBars days={results.data.days} figure="cost" />
              </>
            ) : (
              data && !newest && <p className="text-ink-2">No results yet.</p>
            )}
          </Panel>
          {days && <MovedBy days={days} />}
          <AllAccounts />
        </aside>
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

const weekdays: Record<string, string> = {
  Mon: 'Monday',
  Tue: 'Tuesday',
  Wed: 'Wednesday',
  Thu: 'Thursday',
  Fri: 'Friday',
  Sat: 'Saturday',
  Sun: 'Sunday',
};

/** “Tuesday's”, by the network's clock. */
function weekdayOf(time: string | null) {
  const day = weekdays[time?.slice(0, 3) ?? ''];
  return day ? `${day}'s` : "Today's";
}
