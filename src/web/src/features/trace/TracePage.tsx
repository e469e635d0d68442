import { useQuery } from '@tanstack/react-query';
import clsx from 'clsx';
import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { answer, api } from '../../api/client';
import { useAccount } from '../../api/account';
import { useStatus } from '../../api/hooks';
import { Empty } from '../../ui/Panel';
import { Segments } from '../../ui/Segments';
import { KeepSearch } from './saved/KeepSearch';
import { modeOf, modes } from './mode';
import { PastSearches } from './past/PastSearches';
import { addressOf, pastOf, type PastQuestion } from './past/past';
import { SavedSearches } from './saved/SavedSearches';
import { SaveSearchesForm } from './saved/SaveSearchesForm';
import { TermsForm } from './many/TermsForm';
import { TermsOutcome } from './many/TermsOutcome';
import { useTerms, type Terms } from './many/useTerms';
import { TraceForm } from './TraceForm';
import { TraceOutcome } from './TraceOutcome';
import { WhatIsSeen } from './WhatIsSeen';
import { questionOf, type Question } from './question';

/** What happens to one search, step by step, with the way to each fix. What is asked stands in the address. */
export function TracePage() {
  const account = useAccount();
  const [parameters, setParameters] = useSearchParams();
  const newest = useStatus().data?.reportedTo ?? null;
  const mode = modeOf(parameters);
  const past = pastOf(parameters, newest);
  const [turned, setTurned] = useState(mode !== 'typed');
  const [terms, setTerms] = useState<Terms | null>(null);
  const [pasted, setPasted] = useState('');
  const many = useTerms();
  const question = questionOf(parameters);
  const asked = past === null ? { question } : { search: past.search };
  const trace = useQuery({
    queryKey: [account.id, 'trace', asked],
    enabled: past === null ? mode === 'typed' && question.text !== '' : past.search !== null,
    queryFn: ({ signal }) =>
      past?.search
        ? answer(
            api.GET('/api/accounts/{accountId}/trace/past/{search}', {
              params: { path: { accountId: account.id, search: past.search } },
              signal,
            }),
          )
        : answer(
            api.POST('/api/accounts/{accountId}/trace', {
              params: { path: { accountId: account.id } },
              body: question,
              signal,
            }),
          ),
  });
  const scope = () => {
    const kept = new URLSearchParams();
    for (const name of ['campaign', 'adGroup']) {
      const value = parameters.get(name);
      if (value) kept.set(name, value);
    }
    return kept;
  };
  const askPast = (next: PastQuestion) => {
    const set = scope();
    for (const [name, value] of addressOf(next)) set.set(name, value);
    setParameters(set);
  };
  const ask = (next: Question) => {
    const set = new URLSearchParams(parameters);
    for (const [name, value] of Object.entries(next)) {
      set.delete(name);
      for (const each of Array.isArray(value) ? value : [value])
        if (each !== null) set.append(name, String(each));
    }
    // Asked once more it is another moment: the clock may have moved, or somebody else the account.
    if (set.toString() === parameters.toString()) void trace.refetch();
    else setParameters(set);
  };
  return (
    <div className="grid h-full min-h-0 grid-cols-[292px_minmax(0,1fr)] max-[1199px]:auto-rows-max max-[1199px]:content-start max-[1199px]:overflow-auto max-[900px]:block min-[1200px]:grid-cols-[292px_minmax(0,1fr)_300px]">
      <div className="flex min-h-0 flex-col gap-3 p-3">
        <h1 className="text-[17px]">Trace a search</h1>
        <Segments
          label="Which search"
          value={mode}
          segments={modes}
          onChange={(next) => {
            setTurned(true);
            if (next === 'past')
              askPast({ day: newest ?? '', fate: 'any', keyword: null, term: null, search: null });
            else {
              const set = scope();
              if (next !== 'typed') set.set('of', next);
              setParameters(set);
            }
          }}
        />
        {past !== null ? (
          <PastSearches question={past} newest={newest} onAsk={(change) => askPast({ ...past, ...change })} />
        ) : mode === 'saved' ? (
          <SaveSearchesForm />
        ) : mode === 'list' ? (
          <TermsForm
            text={pasted}
            onText={setPasted}
            asking={many.count.isPending}
            onAsk={(next) => {
              setTerms(next);
              many.count.mutate(next);
            }}
          />
        ) : (
          <TraceForm question={question} asking={trace.isFetching} first={!turned} onAsk={ask} />
        )}
      </div>
      <div
        className={clsx(
          'border-x border-line bg-sheet min-[1200px]:min-h-0 min-[1200px]:overflow-auto',
          (mode === 'saved' || mode === 'list') && 'min-[1200px]:col-span-2',
        )}
        aria-busy={trace.isFetching}
      >
        {mode === 'saved' ? (
          <SavedSearches />
        ) : mode === 'list' ? (
          <ManyOutcome terms={terms} many={many} />
        ) : (
          <>
            {trace.isError && <Problem>{trace.error.message}</Problem>}
            {trace.data ? (
              <TraceOutcome trace={trace.data} copy={past === null ? question.copy : 'live'}>
                {past === null && <KeepSearch trace={trace.data} question={question} />}
              </TraceOutcome>
            ) : (
              !trace.isError &&
              (trace.isFetching ? (
                <p className="p-4 text-ink-3">Tracing…</p>
              ) : (
                <Empty title="Why does this ad show, and why not that one?">
                  {past === null
                    ? 'Type what somebody might search for. You see which campaigns are in reach, which keywords match and how, what blocks them, and what a click would cost.'
                    : 'Choose a search that somebody made. You see what the network did with it, step by step, and what came of it.'}
                </Empty>
              ))
            )}
          </>
        )}
      </div>
      {(mode === 'typed' || mode === 'past') && trace.data && <WhatIsSeen trace={trace.data} />}
    </div>
  );
}

/** What came of a list, as far as it was traced. */
function ManyOutcome({ terms, many }: { terms: Terms | null; many: ReturnType<typeof useTerms> }) {
  const problem = many.count.error ?? many.file.error;
  return (
    <>
      {problem && <Problem>{problem.message}</Problem>}
      {terms && many.count.data ? (
        <TermsOutcome
          outcome={many.count.data}
          name={terms.name}
          circumstances={{ device: terms.device, site: terms.site }}
          fetching={many.file.isPending}
          onFile={() => many.file.mutate(terms)}
          onAgain={() => many.count.mutate(terms)}
        />
      ) : many.count.isPending ? (
        <p className="p-4 text-ink-3">Tracing…</p>
      ) : (
        !problem && (
          <Empty title="What becomes of many searches">
            Paste the search terms of a report, or choose a file. You see how many of them show and from
            where, which match nothing, and which a negative keeps away.
          </Empty>
        )
      )}
    </>
  );
}

function Problem({ children }: { children: string }) {
  return (
    <p role="alert" className="p-4 text-brick">
      {children}
    </p>
  );
}
