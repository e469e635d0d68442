import clsx from 'clsx';
import { useAccount } from '../../api/account';
import { tell } from '../../api/hooks';
import { Button } from '../../ui/Button';
import { money, moment, nothing, whole } from '../../ui/format';
import { MatchChip } from '../../ui/Marks';
import { Segments } from '../../ui/Segments';
import {
  rowsOfPage,
  type Call,
  type CallGroup,
  type CallRequest,
  type Calls,
  type Grouping,
} from './useCalls';
import { downloadCalls } from './downloadCalls';

const groupings: readonly { value: Grouping; label: string }[] = [
  { value: 'call', label: 'Each call' },
  { value: 'campaign', label: 'By campaign' },
  { value: 'keyword', label: 'By keyword' },
  { value: 'hour', label: 'By hour' },
  { value: 'area', label: 'By area' },
  { value: 'number', label: 'By number' },
];

interface Props {
  calls: Calls;
  request: CallRequest;
  onBy: (by: Grouping) => void;
  onOffset: (offset: number) => void;
}

/** The log of calls, each by itself or by what they have in common. */
export function CallLog({ calls, request, onBy, onOffset }: Props) {
  const account = useAccount();
  const { by, offset } = request;
  return (
    <section aria-label="Log of calls" className="min-w-0">
      <div className="flex flex-wrap items-center gap-2 px-3 pb-2">
        <Segments label="Calls" value={by} segments={groupings} onChange={onBy} />
        <div className="ml-auto flex items-center gap-2">
          {by === 'call' && calls.now.rang > rowsOfPage && (
            <>
              <span className="text-ink-3">
                {whole(offset + 1)} to {whole(offset + calls.calls.length)} of {whole(calls.now.rang)}
              </span>
              <Button disabled={offset === 0} onClick={() => onOffset(Math.max(0, offset - rowsOfPage))}>
                Later
              </Button>
              <Button
                disabled={offset + rowsOfPage >= calls.now.rang}
                onClick={() => onOffset(offset + rowsOfPage)}
              >
                Earlier
              </Button>
            </>
          )}
          <Button onClick={() => void downloadCalls(account.id, request).catch(tell)}>Take out as CSV</Button>
        </div>
      </div>
      {by === 'call' ? <Each rows={calls.calls} /> : <Groups rows={calls.groups} />}
    </section>
  );
}

const head = 'px-2 text-left font-semibold';

function Each({ rows }: { rows: readonly Call[] }) {
  const account = useAccount();
  return (
    <table className="w-full border-collapse" aria-label="Calls">
      <thead>
        <tr className="h-[29px] border-b border-line-strong text-[12px] text-ink-3">
          <th scope="col" className={clsx(head, 'pl-3')}>
            When
          </th>
          <th scope="col" className={head}>
            From
          </th>
          <th scope="col" className="px-2 text-right font-semibold">
            Rang
          </th>
          <th scope="col" className="px-2 text-right font-semibold">
            Talked
          </th>
          <th scope="col" className={head}>
            Verdict
          </th>
          <th scope="col" className={head}>
            Keyword
          </th>
          <th scope="col" className={head}>
            Ad group
          </th>
          <th scope="col" className={head}>
            By
          </th>
          <th scope="col" className="px-3 text-right font-semibold">
            Cost
          </th>
        </tr>
      </thead>
      <tbody>
        {rows.map((call, at) => (
          <tr key={at} className="h-[27px] border-b border-line-soft">
            <th scope="row" className="px-3 text-left font-normal whitespace-nowrap">
              {moment(call.at)}
            </th>
            <td className="px-2 whitespace-nowrap">{call.area || nothing}</td>
            <td className="px-2 text-right whitespace-nowrap">{call.rang} s</td>
            <td className="px-2 text-right">{talk(call.talked)}</td>
            <td className="px-2 whitespace-nowrap">
              <span className={clsx('rounded px-1.5 py-0.5 text-[12px] font-semibold', tones[call.verdict])}>
                {call.says}
              </span>
              {call.nth > 1 && (
                <span className="ml-1.5 text-[12px] text-ink-3">call {call.nth} of this person</span>
              )}
            </td>
            <td className="max-w-[210px] truncate px-2" title={call.keyword ?? undefined}>
              {call.keyword ?? nothing} {call.match && <MatchChip match={call.match} />}
            </td>
            <td
              className="max-w-[140px] truncate px-2 text-ink-2"
              title={`${call.campaign} · ${call.adGroup}`}
            >
              {call.adGroup || call.campaign}
            </td>
            <td className="px-2 whitespace-nowrap text-ink-2" title={call.dialled ?? undefined}>
              {call.fromAd ? 'ad' : 'site'}
            </td>
            <td className="px-3 text-right">{money(call.cost, account)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

const tones: Record<Call['verdict'], string> = {
  counts: 'bg-moss-wash text-moss',
  tooShort: 'bg-sunk text-ink-2',
  missed: 'bg-brick-wash text-brick',
  engaged: 'bg-brick-wash text-brick',
  sameCaller: 'bg-sunk text-ink-2',
};

function talk(seconds: number) {
  return seconds === 0 ? nothing : `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`;
}

function Groups({ rows }: { rows: readonly CallGroup[] }) {
  const account = useAccount();
  return (
    <table className="w-full border-collapse" aria-label="Calls added up">
      <thead>
        <tr className="h-[29px] border-b border-line-strong text-[12px] text-ink-3">
          <td />
          {['Rang', 'Answered', 'Counted', 'Missed', 'Engaged', 'Cost / answered', 'Cost / counted'].map(
            (name) => (
              <th key={name} scope="col" className="px-3 text-right font-semibold">
                {name}
              </th>
            ),
          )}
        </tr>
      </thead>
      <tbody>
        {rows.map(({ name, totals }) => (
          <tr key={name} className="h-[27px] border-b border-line-soft">
            <th scope="row" className="px-3 text-left font-normal">
              {name || nothing}
            </th>
            {[totals.rang, totals.answered, totals.counted, totals.missed, totals.engaged].map(
              (value, at) => (
                <td key={at} className="px-3 text-right">
                  {whole(value)}
                </td>
              ),
            )}
            <td className="px-3 text-right">{money(totals.costPerAnswered, account)}</td>
            <td className="px-3 text-right">{money(totals.costPerCounted, account)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
