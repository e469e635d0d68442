import { useQuery } from '@tanstack/react-query';
import { useSearchParams } from 'react-router';
import { answer, api } from '../../api/client';
import { useAccount } from '../../api/account';
import { Empty } from '../../ui/Panel';
import { TraceForm } from './TraceForm';
import { TraceOutcome } from './TraceOutcome';
import { WhatIsSeen } from './WhatIsSeen';
import { questionOf, type Question } from './question';

/** What happens to one search, step by step, with the way to each fix. What is asked stands in the address. */
export function TracePage() {
  const account = useAccount();
  const [parameters, setParameters] = useSearchParams();
  const question = questionOf(parameters);
  const trace = useQuery({
    queryKey: [account.id, 'trace', question],
    enabled: question.text !== '',
    queryFn: ({ signal }) =>
      answer(
        api.POST('/api/accounts/{accountId}/trace', {
          params: { path: { accountId: account.id } },
          body: question,
          signal,
        }),
      ),
  });
  const ask = (next: Question) => {
    const set = new URLSearchParams(parameters);
    for (const [name, value] of Object.entries(next)) set.set(name, value);
    // Asked once more it is another moment: the clock may have moved, or somebody else the account.
    if (set.toString() === parameters.toString()) void trace.refetch();
    else setParameters(set);
  };
  return (
    <div className="grid h-full min-h-0 grid-cols-[292px_minmax(0,1fr)] max-[1199px]:auto-rows-max max-[1199px]:content-start max-[1199px]:overflow-auto max-[900px]:block min-[1200px]:grid-cols-[292px_minmax(0,1fr)_300px]">
      <TraceForm question={question} asking={trace.isFetching} onAsk={ask} />
      <div
        className="border-x border-line bg-sheet min-[1200px]:min-h-0 min-[1200px]:overflow-auto"
        aria-busy={trace.isFetching}
      >
        {trace.isError && (
          <p role="alert" className="p-4 text-brick">
            {trace.error.message}
          </p>
        )}
        {trace.data ? (
          <TraceOutcome trace={trace.data} copy={question.copy} />
        ) : (
          !trace.isError &&
          (trace.isFetching ? (
            <p className="p-4 text-ink-3">Tracing…</p>
          ) : (
            <Empty title="Why does this ad show, and why not that one?">
              Type what somebody might search for. You see which campaigns are in reach, which keywords match
              and how, what blocks them, and what a click would cost.
            </Empty>
          ))
        )}
      </div>
      {trace.data && <WhatIsSeen trace={trace.data} />}
    </div>
  );
}
