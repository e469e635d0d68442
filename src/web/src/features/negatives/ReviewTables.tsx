import { useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import type { Command, Schemas } from '../../api/client';
import { useAccount } from '../../api/account';
import { count, money, plural, whole } from '../../ui/format';
import { Button } from '../../ui/Button';
import { MatchChip } from '../../ui/Marks';
import { Empty } from '../../ui/Panel';

interface Props {
  report: Schemas['NegativeReport'];
  onPreview: (command: Command) => void;
}

function Where({ negative }: { negative: Schemas['NegativePlace'] }) {
  return (
    <span className="text-ink-2">
      {negative.level === 'list' ? 'list ' : negative.level === 'campaign' ? 'campaign ' : 'ad group '}
      {negative.place}
    </span>
  );
}

function Negative({ negative }: { negative: Schemas['NegativePlace'] }) {
  return (
    <span className="whitespace-nowrap">
      {negative.text} {negative.match && <MatchChip match={negative.match} negative />}
    </span>
  );
}

function Table({ titles, children }: { titles: readonly string[]; children: ReactNode }) {
  return (
    <table className="w-full text-left">
      <thead>
        <tr className="border-b border-line-strong text-[11.5px] text-ink-3">
          {titles.map((title, place) => (
            <th key={place} scope="col" className="py-1 pr-3 font-semibold">
              {title}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>{children}</tbody>
    </table>
  );
}

const removal = (ids: readonly number[]): Command => ({
  type: 'remove',
  items: ids.map((id) => ({ kind: 'negativeKeyword', id })),
});

/** Negatives that keep the account's own keywords from showing, those that cost conversions first. */
export function ConflictsTable({ report, onPreview }: Props) {
  const account = useAccount();
  if (report.conflictCount === 0)
    return (
      <Empty title="No negative blocks an own keyword">
        {plural(report.negatives, 'negative')} were held against {plural(report.keywords, 'keyword')}.
      </Empty>
    );
  return (
    <>
      <p className="mb-2 text-ink-2">
        Held against {plural(report.keywords, 'keyword')}. What the keywords brought in the last 28 days is
        what the negative takes away.
      </p>
      <Table titles={['Negative', 'Where', 'Blocks', 'Conv.', 'Clicks', '']}>
        {report.conflicts.map((conflict) => (
          <tr key={conflict.negative.id} className="border-b border-line-soft align-top">
            <td className="py-1.5 pr-3">
              <Negative negative={conflict.negative} />
            </td>
            <td className="py-1.5 pr-3">
              <Where negative={conflict.negative} />
            </td>
            <td className="py-1.5 pr-3">
              {plural(conflict.keywords, 'keyword')}:{' '}
              {conflict.examples.map((keyword, place) => (
                <span key={keyword.id}>
                  {place > 0 && ', '}
                  <Link
                    className="text-plum underline"
                    to={`/${account.id}/plan/structure?campaign=${keyword.campaignId}&adGroup=${keyword.adGroupId}&focus=keyword:${keyword.id}`}
                  >
                    {keyword.text}
                  </Link>
                </span>
              ))}
              {conflict.keywords > conflict.examples.length && ' …'}
            </td>
            <td className="py-1.5 pr-3">{count(conflict.figures.conversions)}</td>
            <td className="py-1.5 pr-3">{whole(conflict.figures.clicks)}</td>
            <td className="py-1.5 text-right">
              <Button tone="brick" onClick={() => onPreview(removal([conflict.negative.id]))}>
                Remove the negative…
              </Button>
            </td>
          </tr>
        ))}
      </Table>
    </>
  );
}

/** Negatives whose work a broader one does already. */
export function NeedlessTable({ report, onPreview }: Props) {
  const [kept, setKept] = useState<ReadonlySet<number>>(new Set());
  if (report.needlessCount === 0)
    return <Empty title="Every negative does work of its own">None is covered by a broader one.</Empty>;
  const ids = report.needless.map((each) => each.negative.id).filter((id) => !kept.has(id));
  return (
    <>
      <div className="mb-2 flex items-center justify-between">
        <span className="text-ink-2">
          {plural(report.needlessCount, 'negative')} block nothing that a broader one does not block as well.
        </span>
        <Button tone="brick" disabled={ids.length === 0} onClick={() => onPreview(removal(ids))}>
          Remove {plural(ids.length, 'negative')}…
        </Button>
      </div>
      <Table titles={['', 'Needless', 'Where', 'The broader one', 'Where']}>
        {report.needless.map(({ negative, broader }) => (
          <tr key={negative.id} className="border-b border-line-soft">
            <td className="py-1.5 pr-2">
              <input
                type="checkbox"
                className="accent-plum"
                aria-label={`Remove ${negative.text}`}
                checked={!kept.has(negative.id)}
                onChange={(event) => {
                  const next = new Set(kept);
                  if (event.target.checked) next.delete(negative.id);
                  else next.add(negative.id);
                  setKept(next);
                }}
              />
            </td>
            <td className="py-1.5 pr-3">
              <Negative negative={negative} />
            </td>
            <td className="py-1.5 pr-3">
              <Where negative={negative} />
            </td>
            <td className="py-1.5 pr-3">
              <Negative negative={broader} />
            </td>
            <td className="py-1.5">
              <Where negative={broader} />
            </td>
          </tr>
        ))}
      </Table>
    </>
  );
}

/** What the negatives would have held back of what people searched for in the last days. */
export function EffectsTable({ report, onPreview }: Props) {
  const account = useAccount();
  if (report.effects.length === 0)
    return (
      <Empty title="No search of the last 28 days would have been held back">
        Searches from before a negative was published show here with what it would have saved or lost.
      </Empty>
    );
  return (
    <Table titles={['Negative', 'Where', 'Would have blocked', 'Saved', 'Conversions lost', '']}>
      {report.effects.map((effect) => (
        <tr key={effect.negative.id} className="border-b border-line-soft align-top">
          <td className="py-1.5 pr-3">
            <Negative negative={effect.negative} />
          </td>
          <td className="py-1.5 pr-3">
            <Where negative={effect.negative} />
          </td>
          <td className="py-1.5 pr-3">
            {plural(effect.terms, 'search', 'searches')}: {effect.examples.join(', ')}
          </td>
          <td className="py-1.5 pr-3">{money(effect.figures.cost, account)}</td>
          <td className="py-1.5 pr-3">{count(effect.figures.conversions)}</td>
          <td className="py-1.5 text-right">
            <Button tone="brick" onClick={() => onPreview(removal([effect.negative.id]))}>
              Remove…
            </Button>
          </td>
        </tr>
      ))}
    </Table>
  );
}
