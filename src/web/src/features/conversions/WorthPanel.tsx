import { useQuery } from '@tanstack/react-query';
import { useState, type FormEvent } from 'react';
import { useAccount } from '../../api/account';
import { answer, api } from '../../api/client';
import { useCommand } from '../../api/hooks';
import { Button } from '../../ui/Button';
import { TextField } from '../../ui/Field';
import { Panel } from '../../ui/Panel';
import { useSettled } from '../../ui/useSettled';
import type { ConversionAction } from './useConversions';

const asTyped = (value: number | null | undefined, mark = '') => (value == null ? '' : `${value}${mark}`);

/** What a lead may cost: worked out once from what a sale brings. */
export function WorthPanel({ action }: { action: ConversionAction }) {
  const account = useAccount();
  const [worth, setWorth] = useState({
    averageSale: asTyped(action.averageSale).replace('.', account.decimalMark),
    closingRate: asTyped(action.closingRate, '%'),
    margin: asTyped(action.margin, '%'),
  });
  const [problem, setProblem] = useState<{ field: string; message: string } | null>(null);
  const run = useCommand({
    onProblem: (told) =>
      setProblem({
        field: (Object.keys(told.fields)[0] ?? '').replace(/^worth\./, ''),
        message: told.message,
      }),
  });
  const settled = useSettled(worth);
  const whole = Object.values(settled).every((text) => text.trim() !== '');
  const worked = useQuery({
    queryKey: [account.id, 'conversions', 'worth', settled],
    enabled: whole,
    retry: false,
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/accounts/{accountId}/conversions/worth', {
          params: { path: { accountId: account.id }, query: settled },
          signal,
        }),
      ),
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (run.isPending || !whole) return;
    run.mutate({
      type: 'setWorth',
      actionId: action.id,
      worth,
      seen: [{ kind: 'conversionAction', id: action.id, version: action.version }],
    });
  };
  const field = (name: keyof typeof worth, label: string) => (
    <TextField
      label={label}
      inputMode="decimal"
      value={worth[name]}
      problem={problem?.field === name ? problem.message : null}
      onChange={(event) => {
        setProblem(null);
        setWorth({ ...worth, [name]: event.target.value });
      }}
    />
  );
  return (
    <Panel title={`What “${action.name}” may cost`}>
      <form onSubmit={submit}>
        <div className="grid grid-cols-3 gap-2">
          {field('averageSale', 'Average sale')}
          {field('closingRate', 'Of 100, buy')}
          {field('margin', 'Of the sale, left')}
        </div>
        <div aria-live="polite">
          {worked.isError && whole && <p className="mt-1 text-brick">{worked.error.message}</p>}
          {worked.data && whole && <p className="mt-1 text-ink-2">{worked.data.says}</p>}
        </div>
        {problem && !(problem.field in worth) && (
          <p role="alert" className="mt-1 text-brick">
            {problem.message}
          </p>
        )}
        <Button type="submit" className="mt-2" disabled={!whole}>
          Use as its value
        </Button>
      </form>
    </Panel>
  );
}
