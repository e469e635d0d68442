import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useAccount } from '../../api/account';
import { answer, api, type Schemas } from '../../api/client';
import { Choice } from '../../ui/Choice';
import { count, money, nothing } from '../../ui/format';
import { Panel } from '../../ui/Panel';
import { Tip } from '../../ui/Tip';
import type { ComparedDays } from './period';

type Moved = Schemas['MovedAnswer'];
type Figure = Moved['figure'];

const figures: { value: Figure; label: string }[] = [
  { value: 'costPerConversion', label: 'cost per conversion' },
  { value: 'conversions', label: 'conversions' },
  { value: 'profit', label: 'value less cost' },
];

interface Props {
  asked: ComparedDays & {
    campaignId?: number | undefined;
    adGroupId?: number | undefined;
    condition?: string | undefined;
  };
  /** The figure that is looked at, where it can be taken apart. */
  figure: string;
}

/** What made the difference: the change of a figure split into causes and items, with no remainder. */
export function MovedPanel({ asked, figure }: Props) {
  const account = useAccount();
  const [chosen, setChosen] = useState<Figure | null>(null);
  const which = chosen ?? (figure === 'conversions' ? 'conversions' : 'costPerConversion');
  const moved = useQuery({
    queryKey: [account.id, 'results', 'moved', asked, which],
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/accounts/{accountId}/results/moved', {
          params: {
            path: { accountId: account.id },
            query: { ...asked, figure: which },
          },
          signal,
        }),
      ),
  });
  const write = (amount: number) => (which === 'conversions' ? count(amount) : money(amount, account));
  return (
    <Panel title="What moved it">
      <Choice label="What is taken apart" value={which} options={figures} onChange={setChosen} />
      {moved.isError && (
        <p role="alert" className="mt-1.5 text-brick">
          {moved.error.message}
        </p>
      )}
      {moved.data && <Split moved={moved.data} write={write} />}
    </Panel>
  );
}

const signed = (amount: number, write: (amount: number) => string) =>
  amount === 0 ? write(0) : `${amount > 0 ? '+' : '−'}${write(Math.abs(amount))}`;

function Split({ moved, write }: { moved: Moved; write: (amount: number) => string }) {
  if (moved.change === null)
    return (
      <p className="mt-1.5 text-ink-2">
        There {moved.now === null ? 'are' : 'were'} no conversions to tell a cost by:{' '}
        {moved.before === null ? nothing : write(moved.before)} before,{' '}
        {moved.now === null ? nothing : write(moved.now)} now.
      </p>
    );
  const most = Math.max(...moved.causes.map((cause) => Math.abs(cause.effect)), 0);
  return (
    <>
      <table className="mt-1.5 w-full">
        <tbody>
          {moved.causes.map((cause) => (
            <tr key={cause.cause}>
              <th scope="row" className="text-left font-normal whitespace-nowrap">
                <Tip text={cause.how}>
                  <span>{cause.name}</span>
                </Tip>
              </th>
              <td className="w-[38%] px-1.5">
                <EffectBar effect={cause.effect} most={most} />
              </td>
              <td className="text-right whitespace-nowrap">{signed(cause.effect, write)}</td>
            </tr>
          ))}
          <tr className="border-t border-line-soft font-semibold">
            <th scope="row" className="text-left">
              Together
            </th>
            <td />
            <td className="text-right whitespace-nowrap">{signed(moved.change, write)}</td>
          </tr>
        </tbody>
      </table>
      {moved.parts.length > 0 && (
        <ul className="mt-1.5 space-y-0.5 text-[12.5px] text-ink-2" aria-label="Where">
          {moved.parts.slice(0, 3).map((part) => (
            <li key={part.id ?? part.name}>
              <strong className="text-ink">
                {part.name} {signed(part.effect, write)}:
              </strong>{' '}
              {part.says}
            </li>
          ))}
        </ul>
      )}
      {moved.chance && <p className="mt-1.5 text-[12.5px] text-ink-3">{moved.chance}</p>}
    </>
  );
}

/** To the left of the middle what lowered it, to the right what raised it. */
function EffectBar({ effect, most }: { effect: number; most: number }) {
  const width = most === 0 ? 0 : (50 * Math.abs(effect)) / most;
  return (
    <span aria-hidden className="relative block h-[10px] border-l-0">
      <span className="absolute inset-y-[-3px] left-1/2 w-px bg-line-strong" />
      <span
        className="absolute inset-y-0 rounded-[1px] bg-plum"
        style={effect < 0 ? { right: '50%', width: `${width}%` } : { left: '50%', width: `${width}%` }}
      />
    </span>
  );
}
