import { useState, type ReactNode } from 'react';
import { PayerDialog } from '../../items/PayerDialog';
import type { Schemas } from '../../api/client';
import { useAccount } from '../../api/account';
import { money, plural } from '../../ui/format';
import { Button } from '../../ui/Button';
import { Ladder } from './Ladder';
import { MatchingKeywords } from './MatchingKeywords';
import { Mend } from './Mend';
import { momentIn } from './past/past';
import { devices, sites } from './question';

interface Props {
  trace: Schemas['SearchTrace'];
  copy: Schemas['TracedCopy'];
  /** What can be done with the search. */
  children?: ReactNode;
}

/** The steps in their order, each with what it rests on. */
export function TraceOutcome({ trace, copy, children }: Props) {
  const account = useAccount();
  const [naming, setNaming] = useState(false);
  const out = trace.campaigns.filter((campaign) => campaign.hindrance !== null);
  const answering = trace.keywords.find((keyword) => keyword.answers);
  const blocked = trace.keywords.filter((keyword) => keyword.hindrance?.kind === 'negative');
  return (
    <div className="px-4 py-3">
      <h2 className="text-[17px]" role="status">
        {trace.outcome}
      </h2>
      {trace.past && <WhoSearched past={trace.past} search={trace.search} />}
      {trace.words.join(' ') !== trace.search && (
        <p className="text-ink-3">Read as {trace.words.length ? `“${trace.words.join(' ')}”` : 'no words'}</p>
      )}
      {!trace.hasPayer && (
        <p className="mt-1 text-ink-2">
          What is published is reviewed, but nobody pays for it.{' '}
          <Button onClick={() => setNaming(true)}>Name a payer…</Button>
        </p>
      )}
      {naming && <PayerDialog onClose={() => setNaming(false)} />}
      {children}
      <ol className="mt-3">
        <Step number={1} title="Campaigns in reach">
          {trace.campaigns.length - out.length} of {trace.campaigns.length}.
          {out.map((campaign) => (
            <span key={campaign.id} className="ml-1.5">
              Out: <b className="text-ink-2">{campaign.name}</b>{' '}
              {campaign.hindrance && <Mend hindrance={campaign.hindrance} />}
            </span>
          ))}
        </Step>
        <Step number={2} title="Keywords that match">
          {trace.keywords.length > 0 ? (
            <MatchingKeywords keywords={trace.keywords} />
          ) : (
            'None. Add a keyword for it, or a broader match type.'
          )}
        </Step>
        <Step number={3} title="Negatives">
          {blocked.length === 0
            ? 'None holds against this search.'
            : `${plural(blocked.length, 'keyword')} kept away. `}
          {[...new Map(blocked.map((each) => [each.hindrance?.itemId, each])).values()].map((keyword) => (
            <div key={keyword.hindrance?.itemId}>
              {keyword.hindrance && <Mend hindrance={keyword.hindrance} />}{' '}
              <span className="text-ink-3">
                in {keyword.campaign} / {keyword.adGroup}
              </span>
            </div>
          ))}
        </Step>
        <Step number={4} title="Who answers">
          {answering ? (
            <>
              <b>{answering.text}</b> in {answering.adGroup}. {trace.rule}
            </>
          ) : (
            'Nobody.'
          )}
        </Step>
        {answering && (
          <Step number={5} title="Bid and quality">
            <div className="flex flex-wrap items-center gap-1.5">
              {trace.bid.map((step, place) => (
                <span key={place} className="rounded-sm border border-line-strong px-2 py-0.5">
                  {place === 0 ? money(step.bidAfter, account) : (step.words ?? `${step.percent} %`)}{' '}
                  <span className="text-ink-2">{step.name}</span>
                </span>
              ))}
              = <b className="text-plum">{money(answering.bid, account)}</b>
              {trace.quality && (
                <>
                  {' '}
                  × <b className="text-plum">{trace.quality.score}</b>
                  <span className="text-ink-3">
                    likely clicks {trace.quality.clickLikelihood} · text {trace.quality.textFit} · page{' '}
                    {trace.quality.pageFit}
                  </span>
                </>
              )}
            </div>
          </Step>
        )}
        {trace.auction && (
          <Step number={6} title="Auction">
            <Ladder auction={trace.auction} />
          </Step>
        )}
        {answering && copy === 'working' && (
          <Step number={6} title="Auction and price">
            <span className="rounded-sm bg-ochre-wash px-1.5 text-ink-2">
              from reports, not known for this search
            </span>
            {trace.notes.map((note) => (
              <p key={note} className="mt-1">
                {note}
              </p>
            ))}
          </Step>
        )}
      </ol>
    </div>
  );
}

/** Who made a search of the past, and what came of it. */
function WhoSearched({ past, search }: { past: Schemas['TracedPast']; search: string }) {
  const account = useAccount();
  return (
    <p className="mt-0.5 text-ink-2">
      “{search}”, typed on{' '}
      {new Date(past.at).toLocaleDateString('en-GB', {
        day: 'numeric',
        month: 'long',
        timeZone: account.timeZone,
      })}{' '}
      at {momentIn(past.at, account.timeZone)} in <span className="capitalize">{past.place}</span> (
      {past.country}) on a {devices.find((device) => device.value === past.device)?.label.toLowerCase()},{' '}
      {sites.find((site) => site.value === past.site)?.label.toLowerCase()}.{' '}
      {past.after && <b className="text-ink">{past.after}</b>}
    </p>
  );
}

function Step({ number, title, children }: { number: number; title: string; children: ReactNode }) {
  return (
    <li className="relative grid grid-cols-[34px_minmax(0,1fr)] pb-4">
      <span
        aria-hidden
        className="absolute top-6 bottom-0 left-[11px] w-px bg-line-strong [li:last-child>&]:hidden"
      />
      <span
        aria-hidden
        className="z-10 grid size-[23px] place-items-center rounded-full bg-plum text-[12px] font-semibold text-white"
      >
        {number}
      </span>
      <div>
        <h3 className="text-[14.5px]">{title}</h3>
        <div className="mt-0.5 text-ink-2">{children}</div>
      </div>
    </li>
  );
}
