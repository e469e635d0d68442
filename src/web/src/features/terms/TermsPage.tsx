import { useState } from 'react';
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

export const everything: TermRequest = {
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
  const [request, setRequest] = useState(everything);
  const change = (part: Partial<TermRequest>) => setRequest((before) => ({ ...before, offset: 0, ...part }));
  const terms = useTerms({ ...request, campaignId, adGroupId });
  if (terms.isError)
    return (
      <p role="alert" className="p-4 text-brick">
        {terms.error.message}
      </p>
    );
  if (terms.data === undefined) return <p className="p-4 text-ink-3">Adding up what people typed …</p>;
  if (terms.data === null || terms.data.terms === 0)
    return (
      <Empty title="Nobody searched yet">
        What people really typed stands here as soon as the network reports it: good terms become keywords,
        bad ones negatives. Publish, and let a day go by.
      </Empty>
    );
  const { data } = terms;
  return (
    <div className="flex h-full min-h-0 flex-col">
      <PageHead
        title="Search terms"
        note={`${fullDay(data.first)} – ${fullDay(data.last)} · ${whole(data.terms)} different, ${whole(data.seenOnce)} seen once`}
      >
        <Choice
          label="Weeks"
          value={String(request.weeks)}
          options={periods}
          onChange={(next) => change({ weeks: Number(next) })}
        />
      </PageHead>
      <OfAccount page={data} request={request} onChange={change} />
    </div>
  );
}

interface OfAccountProps {
  page: TermPage;
  request: TermRequest;
  onChange: (part: Partial<TermRequest>) => void;
}

function OfAccount({ page, request, onChange }: OfAccountProps) {
  const [decision, setDecision] = useState<Decision>('negative');
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
          onDecide={(next) => {
            setDecision(next);
            // The panel has what was proposed by then.
            requestAnimationFrame(() => document.getElementById('decide')?.focus());
          }}
        />
      </div>
      <DecideSide
        key={chosen.map(keyOf).join('\n')}
        terms={chosen}
        weeks={request.weeks}
        decision={decision}
        onDecision={setDecision}
        onDecided={ticks.none}
      />
    </div>
  );
}
