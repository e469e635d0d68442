import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import { answer, api, type ItemReference } from '../../api/client';
import { tell, useCommand, useRefresh } from '../../api/hooks';
import { useLiveDifferences } from '../../api/liveDifferences';
import { useAccount } from '../../api/account';
import { plural } from '../../ui/format';
import { KindNoun } from '../../ui/KindNoun';
import { Button } from '../../ui/Button';

/** Reads what changed on the network since, and says what came of it. */
export function ReadLiveButton() {
  const account = useAccount();
  const queries = useQueryClient();
  const refresh = useRefresh();
  const [reading, setReading] = useState(false);
  const read = async () => {
    setReading(true);
    try {
      const items = await answer(
        api.POST('/api/accounts/{accountId}/live/read', { params: { path: { accountId: account.id } } }),
      );
      queries.setQueryData([account.id, 'live'], items);
      toast(
        items.length === 0
          ? 'Nothing was changed on the network itself.'
          : `${plural(items.length, 'item')} changed on the network itself.`,
      );
      await refresh(['status']);
    } catch (error) {
      tell(error);
    }
    setReading(false);
  };
  return (
    <Button disabled={reading} onClick={() => void read()}>
      {reading ? 'Reading…' : 'Read the live copy'}
    </Button>
  );
}

/** What somebody changed on the network itself, in three versions, and whose holds. */
export function LiveSection() {
  const run = useCommand();
  const live = useLiveDifferences();
  const items = live.data ?? [];
  if (items.length === 0) return null;
  const decide = (chosen: ItemReference[], takeTheirs: boolean) =>
    run.mutate({ type: 'decideLive', items: chosen, takeTheirs });
  return (
    <section aria-label="Changed on the network" className="my-3 rounded-lg border border-ochre bg-sheet">
      <div className="flex flex-wrap items-center gap-2 border-b border-line px-3 py-2">
        <h2 className="text-[15px]">Changed on the network itself</h2>
        <span className="text-ink-3">
          {plural(items.length, 'item')}; not published until it is decided whose version holds
        </span>
        <div className="ml-auto flex gap-2">
          <Button disabled={run.isPending} onClick={() => decide([], false)}>
            Keep ours for all
          </Button>
          <Button tone="plum" disabled={run.isPending} onClick={() => decide([], true)}>
            Take theirs for all
          </Button>
        </div>
      </div>
      <table className="w-full text-left">
        <thead>
          <tr className="border-b border-line-strong text-[11.5px] text-ink-3">
            {['Item', 'Field', 'Agreed last', 'Ours', 'Theirs', ''].map((title) => (
              <th key={title} scope="col" className="px-3 py-1 font-semibold">
                {title}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {items.map((item) => {
            const chosen = [{ kind: item.kind, id: item.id }];
            const rows = item.gone ? 1 : Math.max(1, item.fields.length);
            return Array.from({ length: rows }, (_, number) => {
              const field = item.gone ? undefined : item.fields[number];
              const ours = field && field.ours !== field.agreed;
              const theirs = field && field.theirs !== field.agreed;
              return (
                <tr
                  key={`${item.kind}${item.id}-${number}`}
                  className={number === rows - 1 ? 'border-b border-line-soft align-top' : 'align-top'}
                >
                  {number === 0 && (
                    <td rowSpan={rows} className="px-3 py-1.5">
                      <span className="text-ink-3">
                        <KindNoun kind={item.kind} />
                      </span>{' '}
                      <b className="font-semibold">{item.name}</b>
                      {item.byBoth && <div className="text-ochre">changed here too</div>}
                      {item.made && <div className="text-ink-3">made on the network</div>}
                    </td>
                  )}
                  {field ? (
                    <>
                      <td className="px-3 py-1.5 text-ink-2">{field.field}</td>
                      <td className="px-3 py-1.5 text-ink-3">{field.agreed ?? '—'}</td>
                      <td className={`px-3 py-1.5 ${ours ? 'font-semibold' : 'text-ink-3'}`}>
                        {field.ours ?? '—'}
                      </td>
                      <td className={`px-3 py-1.5 ${theirs ? 'font-semibold' : 'text-ink-3'}`}>
                        {field.theirs ?? '—'}
                      </td>
                    </>
                  ) : (
                    <td colSpan={4} className="px-3 py-1.5 text-ink-2">
                      removed on the network
                    </td>
                  )}
                  {number === 0 && (
                    <td rowSpan={rows} className="px-3 py-1.5 text-right whitespace-nowrap">
                      <Button
                        disabled={run.isPending}
                        aria-label={`Keep ours: ${item.name}`}
                        onClick={() => decide(chosen, false)}
                      >
                        Keep ours
                      </Button>{' '}
                      <Button
                        disabled={run.isPending}
                        aria-label={`Take theirs: ${item.name}`}
                        onClick={() => decide(chosen, true)}
                      >
                        Take theirs
                      </Button>
                    </td>
                  )}
                </tr>
              );
            });
          })}
        </tbody>
      </table>
    </section>
  );
}
