import { useQuery } from '@tanstack/react-query';
import clsx from 'clsx';
import { answer, api, type Schemas } from '../../../api/client';
import { useAccount } from '../../../api/account';
import { Choice } from '../../../ui/Choice';
import { TextField } from '../../../ui/Field';
import { money } from '../../../ui/format';
import { Labelled } from '../Labelled';
import { fates, momentIn, type PastQuestion } from './past';
import { devices } from '../question';

interface Props {
  question: PastQuestion;
  newest: string | null;
  onAsk: (change: Partial<PastQuestion>) => void;
}

/** Searches that people made on a day, to be opened one by one. */
export function PastSearches({ question, newest, onAsk }: Props) {
  const account = useAccount();
  const { day, fate, keyword, term } = question;
  const searches = useQuery({
    queryKey: [account.id, 'past', day, fate, keyword, term],
    enabled: day !== '',
    staleTime: Infinity,
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/accounts/{accountId}/trace/past', {
          params: {
            path: { accountId: account.id },
            query: {
              day,
              fate: fate === 'any' ? undefined : fate,
              keywordId: keyword ?? undefined,
              term: term ?? undefined,
            },
          },
          signal,
        }),
      ),
  });
  return (
    <div className="flex min-h-0 flex-col gap-3 overflow-hidden">
      <div className="grid grid-cols-2 gap-2">
        <TextField
          label="Day"
          type="date"
          value={day}
          max={newest ?? undefined}
          onChange={(event) => event.target.value && onAsk({ day: event.target.value, search: null })}
        />
        <Labelled name="What became of it">
          <Choice
            label="What became of it"
            className="w-full"
            value={fate}
            options={fates}
            onChange={(next) => onAsk({ fate: next, search: null })}
          />
        </Labelled>
      </div>
      {(keyword !== null || term !== null) && (
        <p className="text-ink-2">
          {term !== null ? `Only “${term}”.` : 'Only searches of one keyword.'}{' '}
          <button
            type="button"
            className="rounded-sm text-plum underline"
            onClick={() => onAsk({ keyword: null, term: null, search: null })}
          >
            All searches
          </button>
        </p>
      )}
      {searches.isError && (
        <p role="alert" className="text-brick">
          {searches.error.message}
        </p>
      )}
      {searches.isFetching && <p className="text-ink-3">Looking…</p>}
      {searches.data?.length === 0 && !searches.isFetching && (
        <p className="text-ink-2">No such search on that day.</p>
      )}
      <ul aria-label="Searches" className="min-h-0 flex-1 overflow-auto">
        {searches.data?.map((each) => (
          <li key={each.name}>
            <button
              type="button"
              aria-current={question.search === each.name}
              onClick={() => onAsk({ search: each.name })}
              className={clsx(
                'block w-full rounded-sm border-b border-line-soft px-1.5 py-1 text-left hover:bg-plum-wash',
                question.search === each.name && 'bg-plum-wash',
              )}
            >
              <span className="block truncate font-semibold">{each.text}</span>
              <span className="flex justify-between gap-2 text-[12px] text-ink-3">
                <span className="truncate">
                  {momentIn(each.at, account.timeZone)} · <span className="capitalize">{each.place}</span> ·{' '}
                  {devices.find((device) => device.value === each.device)?.label.toLowerCase()}
                </span>
                <span className="whitespace-nowrap">{fateOf(each, (price) => money(price, account))}</span>
              </span>
            </button>
          </li>
        ))}
      </ul>
    </div>
  );
}

function fateOf(search: Schemas['SampleSearch'], write: (price: number | null) => string): string {
  switch (search.fate) {
    case 'shown':
      return search.clicked ? `clicked, ${write(search.price)}` : 'shown';
    case 'lostToRank':
      return 'lost to rank';
    case 'lostToBudget':
      return 'lost to budget';
    case 'blocked':
      return 'blocked';
  }
}
