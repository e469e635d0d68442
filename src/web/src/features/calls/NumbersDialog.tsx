import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import { useAccount } from '../../api/account';
import { answer, api, ApiProblem, type Schemas } from '../../api/client';
import { tell, useCampaigns } from '../../api/hooks';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Dialog } from '../../ui/Dialog';
import { TextField } from '../../ui/Field';
import { plural } from '../../ui/format';

type Pool = Schemas['NumberPool'];

const pools: { value: Pool; label: string; how: string }[] = [
  {
    value: 'visit',
    label: 'by visit',
    how: 'Visitors of the site see them in turn: a call says its keyword.',
  },
  {
    value: 'campaign',
    label: 'by campaign',
    how: 'They stand beside the ads and on the pages: a call from the site says its campaign.',
  },
];

const free = 'freephone';
const all = 'all';

/** Numbers that the carrier forwards to the business, so that calls can be told apart. */
export function NumbersDialog({ onClose }: { onClose: () => void }) {
  const account = useAccount();
  const queries = useQueryClient();
  const campaigns = useCampaigns().data ?? [];
  const path = { accountId: account.id };
  const numbers = useQuery({
    queryKey: [account.id, 'numbers'],
    queryFn: ({ signal }) =>
      answer(api.GET('/api/accounts/{accountId}/calls/numbers', { params: { path }, signal })),
  });
  const [pool, setPool] = useState<Pool>('visit');
  const [area, setArea] = useState<string | null>(null);
  const [campaign, setCampaign] = useState(all);
  const [rings, setRings] = useState<string | null>(null);
  const [count, setCount] = useState<string | null>(null);
  const [problem, setProblem] = useState<Record<string, string[]>>({});
  const data = numbers.data;
  const chosenArea = area ?? data?.areas[0] ?? free;
  const ringsAt = rings ?? data?.numbers[0]?.forwardsTo ?? '';
  const wanted = count ?? (pool === 'visit' ? String(data?.missing ?? 1) : '1');
  const change = async (work: () => Promise<unknown>, said: string) => {
    setProblem({});
    try {
      await work();
      toast(said);
      setCount(null);
    } catch (error) {
      if (error instanceof ApiProblem && Object.keys(error.fields).length > 0) setProblem(error.fields);
      else tell(error);
    }
    await queries.invalidateQueries({ queryKey: [account.id, 'numbers'] });
  };
  const rent = () =>
    change(
      () =>
        answer(
          api.POST('/api/accounts/{accountId}/calls/numbers', {
            params: { path },
            body: {
              reach: chosenArea === free ? 'freephone' : 'local',
              area: chosenArea === free ? null : chosenArea,
              forwardsTo: ringsAt,
              pool,
              campaignId: pool === 'campaign' && campaign !== all ? Number(campaign) : null,
              count: Number(wanted),
            },
          }),
        ),
      `${plural(Number(wanted), 'number')} rented. Calls from now on go by them.`,
    );
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title="Tracked numbers"
      description="Rented from the carrier and forwarded to you. Without any, the network uses numbers of its own."
    >
      {numbers.isError && (
        <p role="alert" className="text-brick">
          {numbers.error.message}
        </p>
      )}
      {data && (
        <form
          className="flex flex-wrap items-end gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            void rent();
          }}
        >
          <TextField
            label="How many"
            className="w-[84px]"
            inputMode="numeric"
            value={wanted}
            problem={problem['count']?.join(' ')}
            onChange={(event) => setCount(event.target.value)}
          />
          <Choice
            label="Area"
            value={chosenArea}
            options={[
              ...data.areas.map((each) => ({ value: each, label: `local, ${each}` })),
              { value: free, label: 'freephone' },
            ]}
            onChange={setArea}
          />
          <Choice label="Told apart" value={pool} options={pools} onChange={setPool} />
          {pool === 'campaign' && (
            <Choice
              label="Campaign"
              value={campaign}
              options={[
                { value: all, label: 'all campaigns' },
                ...campaigns.map((each) => ({ value: String(each.id), label: each.name })),
              ]}
              onChange={setCampaign}
            />
          )}
          <TextField
            label="Rings at"
            className="w-[170px]"
            value={ringsAt}
            placeholder="0113 496 0142"
            problem={problem['forwardsTo']?.join(' ')}
            onChange={(event) => setRings(event.target.value)}
          />
          <Button type="submit" tone="ember" disabled={!ringsAt.trim() || !(Number(wanted) > 0)}>
            Rent
          </Button>
          <p className="w-full text-[12.5px] text-ink-2">
            {pools.find((each) => each.value === pool)?.how} {pool === 'visit' && data.why}
          </p>
        </form>
      )}
      {data && data.numbers.length > 0 && (
        <table className="mt-3 w-full border-collapse">
          <thead>
            <tr className="h-[29px] border-b border-line-strong text-left text-[12px] text-ink-3">
              {['Number', 'Area', 'Told apart', 'Campaign', 'Rings at'].map((name) => (
                <th key={name} scope="col" className="pr-3 font-semibold">
                  {name}
                </th>
              ))}
              <td />
            </tr>
          </thead>
          <tbody>
            {together(data.numbers).map((same) => {
              const [first, last] = [same[0], same.at(-1)];
              if (!first || !last) return null;
              const name =
                same.length === 1
                  ? first.written
                  : `${plural(same.length, 'number')}, ${first.written} to ${last.written.slice(-4)}`;
              return (
                <tr key={first.number} className="h-[27px] border-b border-line-soft">
                  <th scope="row" className="pr-3 text-left font-semibold whitespace-nowrap">
                    {name}
                  </th>
                  <td className="pr-3">{first.area ?? 'freephone'}</td>
                  <td className="pr-3">{pools.find((one) => one.value === first.pool)?.label}</td>
                  <td className="pr-3">{first.pool === 'visit' ? '' : (first.campaign ?? 'all')}</td>
                  <td className="pr-3 whitespace-nowrap">{first.forwardsTo}</td>
                  <td className="text-right">
                    <Button
                      tone="quiet"
                      aria-label={`Give back ${name}`}
                      onClick={() =>
                        void change(
                          () =>
                            answer(
                              api.POST('/api/accounts/{accountId}/calls/numbers/back', {
                                params: { path },
                                body: { numbers: same.map((each) => each.number) },
                              }),
                            ),
                          `${plural(same.length, 'number')} given back. They ring nowhere now, and rest before somebody else gets them.`,
                        )
                      }
                    >
                      Give back
                    </Button>
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      )}
    </Dialog>
  );
}

/** Numbers that differ in nothing but themselves, as one line. */
function together(numbers: readonly Schemas['NumberView'][]): Schemas['NumberView'][][] {
  const groups = new Map<string, Schemas['NumberView'][]>();
  for (const each of numbers) {
    const key = [each.pool, each.area, each.campaign, each.forwardsTo, each.since].join('|');
    groups.set(key, [...(groups.get(key) ?? []), each]);
  }
  return [...groups.values()];
}
