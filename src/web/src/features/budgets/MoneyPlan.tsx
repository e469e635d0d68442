import { useState, type FormEvent } from 'react';
import { useAccount } from '../../api/account';
import { tell, useCommand } from '../../api/hooks';
import { Button } from '../../ui/Button';
import { CheckField, TextField } from '../../ui/Field';
import { count, money, plural, whole } from '../../ui/format';
import { goHome } from '../../ui/home';
import { Panel } from '../../ui/Panel';
import { usePlan, useProposal, type Plan } from './useBudgets';

/** Daily budgets of several campaigns planned together: one that is typed takes from the others, or gives to them. */
export function MoneyPlan({ campaigns, weeks }: { campaigns: readonly number[]; weeks: number }) {
  const account = useAccount();
  const [typed, setTyped] = useState<ReadonlyMap<number, string>>(new Map());
  // What is in a field while it is typed; it counts when the field is left.
  const [typing, setTyping] = useState<{ id: number; text: string } | null>(null);
  const [keepsSum, setKeepsSum] = useState(true);
  const [message, setMessage] = useState<string | null>(null);
  const plan = usePlan(campaigns, typed, keepsSum, weeks);
  const propose = useProposal(campaigns, weeks);
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
  if (plan.isError)
    return (
      <Panel title="Move money">
        <p role="alert" className="text-brick">
          {plan.error.message}
        </p>
      </Panel>
    );
  if (!data) return null;
  const commit = (id: number, text: string, shown: string) => {
    setTyping(null);
    setMessage(null);
    if (text.trim() === shown) return;
    setTyped((before) => {
      const next = new Map(before);
      if (text.trim()) next.set(id, text.trim());
      else next.delete(id);
      return next;
    });
  };
  const changed = data.budgets.filter((budget) => budget.differs);
  const apply = () => {
    if (run.isPending || plan.isPlaceholderData) return;
    run.mutate(
      {
        type: 'moveMoney',
        budgets: changed.map((budget) => ({ campaignId: budget.id, budget: budget.then })),
        keepsSum,
        // What a colleague set meanwhile is told, not overwritten.
        seen: changed.map(({ id, version }) => ({ kind: 'campaign' as const, id, version })),
      },
      {
        onSuccess: () => {
          setTyped(new Map());
          goHome();
        },
      },
    );
  };
  const takeProposal = async () => {
    try {
      const proposal = await propose();
      const better = proposal.budgets.filter((budget) => budget.differs);
      setTyped(new Map(better.map((budget) => [budget.id, budget.then])));
      setMessage(better.length === 0 ? 'No other budgets of this sum are likely to bring more.' : null);
    } catch (error) {
      tell(error);
    }
  };
  return (
    <Panel title="Move money">
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
                title={budget.name}
              >
                {budget.name}
              </th>
              <td className="px-2 text-right whitespace-nowrap">{money(budget.now, account)}</td>
              <td>
                <form
                  onSubmit={(event: FormEvent) => {
                    event.preventDefault();
                    if (typing?.id === budget.id) commit(budget.id, typing.text, budget.then);
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
                    onLeave={() => typing?.id === budget.id && commit(budget.id, typing.text, budget.then)}
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
          {typed.size > 0 && (
            <Button
              tone="quiet"
              onClick={() => {
                setTyped(new Map());
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
      {data.effect && <Effect effect={data.effect} />}
      {changed.length > 0 && (
        <Button
          tone="ember"
          className="mt-2.5 w-full py-2"
          disabled={data.problem !== null || plan.isPlaceholderData}
          onClick={apply}
        >
          Change {plural(changed.length, 'budget')}
        </Button>
      )}
    </Panel>
  );
}

/** On to the next field of the plan; after the last, to what can be done with it. */
function nextField(form: HTMLElement) {
  const fields = [...(form.closest('table')?.querySelectorAll<HTMLElement>('input') ?? [])];
  const next = fields[fields.findIndex((field) => form.contains(field)) + 1];
  if (next) next.focus();
  else goHome();
}

interface ThenProps {
  id: number;
  name: string;
  value: string;
  bold: boolean;
  problem: boolean;
  onType: (text: string) => void;
  onLeave: () => void;
  onEscape: () => void;
}

function ThenField({ id, name, value, bold, problem, onType, onLeave, onEscape }: ThenProps) {
  return (
    <TextField
      label={`${name}, daily budget then`}
      hideLabel
      fieldId={`budget-${id}`}
      inputMode="decimal"
      value={value}
      aria-invalid={problem || undefined}
      style={{ textAlign: 'right', fontWeight: bold ? 700 : 400 }}
      onChange={(event) => onType(event.target.value)}
      onFocus={(event) => event.target.select()}
      onBlur={onLeave}
      onKeyDown={(event) => {
        if (event.key !== 'Escape') return;
        event.preventDefault();
        onEscape();
      }}
    />
  );
}

function Effect({ effect }: { effect: NonNullable<Plan['effect']> }) {
  const account = useAccount();
  const rows = [
    {
      name: 'Clicks',
      now: whole(effect.clicksNow),
      then: [whole(effect.clicks.low), whole(effect.clicks.high)],
    },
    {
      name: 'Cost',
      now: money(effect.costNow, account),
      then: [money(effect.cost.low, account), money(effect.cost.high, account)],
    },
    {
      name: 'Conversions',
      now: count(effect.conversionsNow),
      then: [count(effect.conversions.low), count(effect.conversions.high)],
    },
    {
      name: 'Cost per conversion',
      now: money(effect.costPerConversionNow, account),
      then: [money(effect.costPerConversion?.low, account), money(effect.costPerConversion?.high, account)],
    },
  ];
  return (
    <div className="mt-2.5 border-t border-line-soft pt-2">
      <h4 className="font-body text-[12px] font-semibold text-ink-2">What it would change in a week</h4>
      <table className="w-full">
        <tbody>
          {rows.map((row) => (
            <tr key={row.name}>
              <th scope="row" className="text-left font-normal">
                {row.name}
              </th>
              <td className="text-right">
                {row.now} →{' '}
                <strong>{row.then[0] === row.then[1] ? row.then[0] : row.then.join(' – ')}</strong>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-1 text-[12.5px] text-ink-3">{effect.restsOn}</p>
    </div>
  );
}
