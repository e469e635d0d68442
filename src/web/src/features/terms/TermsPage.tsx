import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { useScope } from '../../app/scope';
import { Choice } from '../../ui/Choice';
import { Empty, PageHead } from '../../ui/Panel';
import { fullDay, whole } from '../../ui/format';
import { useTicks } from '../../ui/useTicks';
import { DecideSide, type Decision } from './decide/DecideSide';
import { TermFilters } from './TermFilters';
import { TermTable } from './TermTable';
import { rowsOfPage, useTerms, type SearchTerm, type TermPage, type TermRequest } from './useTerms';
import { WordsSide } from './WordsSide';

const periods = [4, 8, 13, 26, 52].map((weeks) => ({ value: String(weeks), label: `Last ${weeks} weeks` }));

const everything: TermRequest = {
  weeks: 13,
  campaignId: null,
  adGroupId: null,
  text: null,
  word: null,
  decided: false,
  withoutKeyword: false,
  new: false,
  several: false,
  conditions: [],
  order: 'cost',
  offset: 0,
  limit: rowsOfPage,
};

const keyOf = (term: SearchTerm) => term.term;

/** What people typed, and what becomes of it: keyword, negative, or left as it is. */
export function TermsPage() {
  const { campaignId, adGroupId } = useScope();
  // The desk leads here with the word that it is about.
  const [parameters] = useSearchParams();
  const [request, setRequest] = useState<TermRequest>({ ...everything, word: parameters.get('word') });
  const change = (part: Partial<TermRequest>) => setRequest((before) => ({ ...before, offset: 0, ...part }));
  const terms = useTerms({ ...request, campaignId, adGroupId });
  // What cannot be asked is told above the page that is there, so that it can be mended.
  const [kept, setKept] = useState<TermPage | null>(null);
  if (terms.data && terms.data !== kept) setKept(terms.data);
  const page = terms.data === undefined ? kept : terms.data;
  if (!page && terms.isError)
    return (
      <p role="alert" className="p-4 text-brick">
        {terms.error.message}
      </p>
    );
  if (terms.data === undefined && !page)
    return <p className="p-4 text-ink-3">Adding up what people typed …</p>;
  if (!page || page.terms === 0)
    return (
      <>
        <h1 className="sr-only">Search terms</h1>
        <Empty title="Nobody searched here yet">
          What people really typed stands here as soon as the network reports it: good terms become keywords,
          bad ones negatives. Publish, and let a day go by; or look at another campaign or ad group.
        </Empty>
      </>
    );
  return (
    <div className="flex h-full min-h-0 flex-col">
      <PageHead
        title="Search terms"
        note={`${fullDay(page.first)} – ${fullDay(page.last)} · ${whole(page.terms)} different, ${whole(page.seenOnce)} seen once`}
      >
        <Choice
          label="Weeks"
          value={String(request.weeks)}
          options={periods}
          onChange={(next) => change({ weeks: Number(next) })}
        />
      </PageHead>
      {terms.isError && (
        <p role="alert" className="border-b border-line bg-sheet px-3 py-1.5 text-brick">
          {terms.error.message} Below stands what was there before.
        </p>
      )}
      <OfAccount page={page} isLate={terms.isPlaceholderData} request={request} onChange={change} />
    </div>
  );
}

interface OfAccountProps {
  page: TermPage;
  /** What is asked for is still on its way. */
  isLate: boolean;
  request: TermRequest;
  onChange: (part: Partial<TermRequest>) => void;
}

function OfAccount({ page, isLate, request, onChange }: OfAccountProps) {
  const [decision, setDecision] = useState<Decision>('negative');
  // A key of the table asked for the step: it gets the focus as soon as it can be taken.
  const [leads, setLeads] = useState(false);
  const ticks = useTicks({ items: page.rows, keyOf });
  const current = page.rows[ticks.active];
  const chosen = ticks.ticked.length > 0 ? ticks.ticked : current ? [current] : [];
  return (
    <div className="grid min-h-0 flex-1 max-[1099px]:block max-[1099px]:overflow-auto min-[1100px]:grid-cols-[260px_minmax(0,1fr)_288px]">
      <WordsSide
        page={page}
        weeks={request.weeks}
        word={request.word ?? null}
        onWord={(word) => onChange({ word })}
      />
      <div className="flex min-h-0 flex-col bg-sheet">
        <TermFilters request={request} onChange={onChange} />
        <TermTable
          page={page}
          ticks={ticks}
          request={request}
          onChange={onChange}
          isLate={isLate}
          onDecide={(next) => {
            setDecision(next ?? decision);
            setLeads(true);
          }}
        />
      </div>
      <DecideSide
        terms={chosen}
        asOf={page.asOf}
        weeks={request.weeks}
        decision={decision}
        onDecision={setDecision}
        leads={leads}
        onLed={() => setLeads(false)}
        onDecided={ticks.none}
      />
    </div>
  );
}
