import { useState, type FormEvent } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { useAccount, useSession } from '../../api/account';
import { tell, useCommand } from '../../api/hooks';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { CheckField } from '../../ui/Field';
import { money, plural } from '../../ui/format';
import { goHome } from '../../ui/home';
import { Panel } from '../../ui/Panel';
import { PlanEffect } from './PlanEffect';
import { ThenField } from './ThenField';
import { usePlan, useProposal, type Plan } from './useBudgets';

const within = 'within';

/** Daily budgets of several campaigns planned together: one that is typed takes from the others, or gives to them. */
export function MoneyPlan({ campaigns, weeks }: { campaigns: readonly number[]; weeks: number }) {
  const account = useAccount();
  const [typed, setTyped] = useState<ReadonlyMap<number, string>>(new Map());
  const [typedThere, setTypedThere] = useState<ReadonlyMap<number, string>>(new Map());
  // What is in a field while it is typed; it counts when the field is left.
  const [typing, setTyping] = useState<{ id: number; text: string } | null>(null);
  const [keepsSum, setKeepsSum] = useState(true);
  const [message, setMessage] = useState<string | null>(null);
  const [otherId, setOtherId] = useState<number | null>(null);
  const others = useSession().accounts.filter(
    (each) => each.id !== account.id && each.currency === account.currency,
  );
  const queries = useQueryClient();
  const plan = usePlan(campaigns, typed, keepsSum, weeks, otherId, typedThere);
  const propose = useProposal(campaigns, weeks, otherId);
  const run = useCommand({ onProblem: (told) => setMessage(told.message) });
  const data = plan.data;
  if (campaigns.length === 0)
    return (
      <Panel title="Move money">
        <p className="text-ink-2">
          Tick the campaigns between which money is to move, or press Space on them.
        </p>
      </Panel>
    );
  const clear = () => {
    setTyped(new Map());
    setTypedThere(new Map());
  };
  const partner = others.length > 0 && (
    <div className="mb-1.5">
      <Choice
        label="With another account"
        value={otherId === null ? within : String(otherId)}
        options={[
          { value: within, label: 'Within this account' },
          ...others.map((each) => ({
            value: String(each.id),
            label: `With ${each.name} on ${each.networkName}`,
          })),
        ]}
        onChange={(next) => {
          clear();
          setMessage(null);
          setOtherId(next === within ? null : Number(next));
        }}
      />
    </div>
  );
  if (plan.isError)
    return (
      <Panel title="Move money">
        {partner}
        <p role="alert" className="text-brick">
          {plan.error.message}
        </p>
      </Panel>
    );
  if (!data) return null;
  const commit = ({ id, accountId, then: shown }: Planned, text: string) => {
    setTyping(null);
    setMessage(null);
    if (text.trim() === shown) return;
    (accountId === account.id ? setTyped : setTypedThere)((before) => {
      const next = new Map(before);
      if (text.trim()) next.set(id, text.trim());
      else next.delete(id);
      return next;
    });
  };
  const changed = data.budgets.filter((budget) => budget.differs);
  const here = changed.filter((budget) => budget.accountId === account.id);
  const there = changed.filter((budget) => budget.accountId !== account.id);
  const apply = () => {
    if (run.isPending || plan.isPlaceholderData) return;
    run.mutate(
      {
        type: 'moveMoney',
        budgets: inputsOf(here),
        keepsSum,
        // What a colleague set meanwhile is told, not overwritten.
        seen: seenOf(here),
        with:
          otherId !== null && there.length > 0
            ? { accountId: otherId, budgets: inputsOf(there), seen: seenOf(there) }
            : null,
      },
      {
        onSuccess: () => {
          if (otherId !== null) void queries.invalidateQueries({ queryKey: [otherId] });
          clear();
          goHome();
        },
      },
    );
  };
  const takeProposal = async () => {
    try {
      const proposal = await propose();
      const better = proposal.budgets.filter((budget) => budget.differs);
      const textsOf = (isHere: boolean) =>
        new Map(
          better
            .filter((budget) => (budget.accountId === account.id) === isHere)
            .map((budget) => [budget.id, budget.then]),
        );
      setTyped(textsOf(true));
      setTypedThere(textsOf(false));
      setMessage(better.length === 0 ? 'No other budgets of this sum are likely to bring more.' : null);
    } catch (error) {
      tell(error);
    }
  };
  return (
    <Panel title="Move money">
      {partner}
      <table className="w-full">
        <thead>
          <tr className="text-[12px] text-ink-3">
            <th scope="col" className="text-left font-semibold">
              A day
            </th>
            <th scope="col" className="px-2 text-right font-semibold">
              now
            </th>
            <th scope="col" className="w-[92px] text-right font-semibold">
              then
            </th>
          </tr>
        </thead>
        <tbody>
          {data.budgets.map((budget) => (
            <tr key={budget.id}>
              <th
                scope="row"
                className="max-w-[140px] truncate py-0.5 text-left font-normal"
                title={budget.accountId === account.id ? budget.name : `${budget.name}, in the other account`}
              >
                {budget.accountId !== account.id && (
                  <span className="text-plum" role="img" aria-label="in the other account">
                    ⇄{' '}
                  </span>
                )}
                {budget.name}
              </th>
              <td className="px-2 text-right whitespace-nowrap">{money(budget.now, account)}</td>
              <td>
                <form
                  onSubmit={(event: FormEvent) => {
                    event.preventDefault();
                    if (typing?.id === budget.id) commit(budget, typing.text);
                    nextField(event.currentTarget as HTMLElement);
                  }}
                >
                  <ThenField
                    id={budget.id}
                    name={budget.name}
                    value={typing?.id === budget.id ? typing.text : budget.then}
                    bold={budget.differs}
                    problem={budget.problem !== null}
                    onType={(text) => setTyping({ id: budget.id, text })}
                    onLeave={() => typing?.id === budget.id && commit(budget, typing.text)}
                    onEscape={() => {
                      setTyping(null);
                      goHome();
                    }}
                  />
                </form>
              </td>
            </tr>
          ))}
          <tr className="font-semibold">
            <th scope="row" className="pt-1 text-left">
              Together
            </th>
            <td className="px-2 pt-1 text-right">{money(data.now, account)}</td>
            <td className="pt-1 pr-2 text-right">{money(data.then, account)}</td>
          </tr>
        </tbody>
      </table>
      <div className="mt-2 flex flex-wrap items-center gap-2">
        <CheckField label="The sum stays" checked={keepsSum} onChange={setKeepsSum} />
        <span className="ml-auto flex gap-1.5">
          {typed.size + typedThere.size > 0 && (
            <Button
              tone="quiet"
              onClick={() => {
                clear();
                goHome();
              }}
            >
              As they are
            </Button>
          )}
          <Button onClick={() => void takeProposal()}>Propose</Button>
        </span>
      </div>
      {(message ?? data.problem) && (
        <p role="alert" className="mt-2 text-ochre">
          <span aria-hidden>◆ </span>
          {message ?? data.problem}
        </p>
      )}
      {data.effect && <PlanEffect effect={data.effect} />}
      {changed.length > 0 && (
        <Button
          tone="ember"
          className="mt-2.5 w-full py-2"
          disabled={data.problem !== null || plan.isPlaceholderData || here.length === 0}
          onClick={apply}
        >
          Change {plural(changed.length, 'budget')}
        </Button>
      )}
      {there.length > 0 && (
        <p className="mt-1 text-[12.5px] text-ink-3">
          {here.length === 0
            ? 'Nothing changes in this account: plan it in the other one.'
            : 'Both accounts change together or not at all. Each has its own step in its history, and its own undo.'}
        </p>
      )}
    </Panel>
  );
}

type Planned = Plan['budgets'][number];

const inputsOf = (budgets: readonly Planned[]) =>
  budgets.map(({ id, then }) => ({ campaignId: id, budget: then }));

const seenOf = (budgets: readonly Planned[]) =>
  budgets.map(({ id, version }) => ({ kind: 'campaign' as const, id, version }));

/** On to the next field of the plan; after the last, to what can be done with it. */
function nextField(form: HTMLElement) {
  const fields = [...(form.closest('table')?.querySelectorAll<HTMLElement>('input') ?? [])];
  const next = fields[fields.findIndex((field) => form.contains(field)) + 1];
  if (next) next.focus();
  else goHome();
}
