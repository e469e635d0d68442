import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { toast } from 'sonner';
import { useAccount } from '../../api/account';
import { answer, api, ApiProblem, type Schemas } from '../../api/client';
import { tell } from '../../api/hooks';
import { useMeasures, type Measure } from '../../api/measures';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Dialog } from '../../ui/Dialog';
import { TextField } from '../../ui/Field';
import { count, money, nothing, percent, whole } from '../../ui/format';

type Form = Schemas['MeasureForm'];

const forms: { value: Form; label: string }[] = [
  { value: 'number', label: 'as a number' },
  { value: 'share', label: 'in per cent' },
  { value: 'whole', label: 'as a whole number' },
];

const signs = ['+', '−', '×', '÷', '(', ')'];

interface Props {
  onMade: (key: string) => void;
  onGone: (key: string) => void;
  onClose: () => void;
}

/** Makes a measure of the others: by typing, or by choosing names and signs. */
export function OwnMeasureDialog({ onMade, onGone, onClose }: Props) {
  const account = useAccount();
  const queries = useQueryClient();
  const measures = useMeasures();
  const input = useRef<HTMLInputElement>(null);
  const [name, setName] = useState('');
  const [formula, setFormula] = useState('');
  const [form, setForm] = useState<Form>('number');
  const [problem, setProblem] = useState<Record<string, string[]>>({});
  const reading = useQuery({
    queryKey: [account.id, 'formula', formula, form],
    enabled: formula.trim() !== '',
    retry: false,
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      answer(
        api.POST('/api/accounts/{accountId}/results/measures/read', {
          params: { path: { accountId: account.id } },
          body: { formula, form },
          signal,
        }),
      ),
  });
  const read = formula.trim() && !reading.isError ? reading.data : undefined;
  const wrong = formula.trim() && reading.isError ? reading.error.message : undefined;
  const own = measures.of('own');
  const path = (measure: string) => ({ params: { path: { accountId: account.id, name: measure } } });
  /** Puts a name or a sign where the cursor is. */
  const put = (text: string) => {
    const at = input.current?.selectionStart ?? formula.length;
    const to = input.current?.selectionEnd ?? at;
    const before = formula.slice(0, at);
    const added = `${before && !/[\s(]$/.test(before) ? ' ' : ''}${text}`;
    setFormula(before + added + formula.slice(to));
    window.setTimeout(() => {
      input.current?.focus();
      input.current?.setSelectionRange(at + added.length, at + added.length);
    });
  };
  const change = async (work: () => Promise<unknown>, said: string) => {
    try {
      await work();
      toast(said);
      await queries.invalidateQueries({ queryKey: [account.id, 'measures'] });
      await queries.invalidateQueries({ queryKey: [account.id, 'results'] });
      return true;
    } catch (error) {
      if (error instanceof ApiProblem && Object.keys(error.fields).length > 0) setProblem(error.fields);
      else tell(error);
      return false;
    }
  };
  const keep = async () => {
    const kept = name.trim();
    const done = await change(
      () =>
        answer(
          api.PUT('/api/accounts/{accountId}/results/measures/{name}', {
            ...path(kept),
            body: { formula, form: read?.form ?? form },
          }),
        ),
      `“${kept}” stands among the columns.`,
    );
    if (!done) return;
    onMade(`own:${kept}`);
    onClose();
  };
  const remove = async (measure: Measure) => {
    const done = await change(
      () => answer(api.DELETE('/api/accounts/{accountId}/results/measures/{name}', path(measure.title))),
      `“${measure.title}” is no measure any more.`,
    );
    if (done) onGone(measure.key);
  };
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title="Measures of your own"
      description="Made of the measures that there are, with + − × ÷ and brackets. Of many rows it is taken from their sums. Everybody at this account has them."
    >
      <form
        onSubmit={(event) => {
          event.preventDefault();
          setProblem({});
          void keep();
        }}
      >
        <div className="grid grid-cols-[220px_1fr] gap-3">
          <TextField
            label="Name"
            autoFocus
            value={name}
            problem={problem['name']?.join(' ')}
            onChange={(event) => setName(event.target.value)}
          />
          <TextField
            ref={input}
            label="Formula"
            value={formula}
            placeholder="cost ÷ impressions × 1000"
            problem={wrong ?? problem['formula']?.join(' ')}
            onChange={(event) => setFormula(event.target.value)}
          />
        </div>
        <div className="mt-2 flex flex-wrap gap-1" role="group" aria-label="Put into the formula">
          {signs.map((sign) => (
            <Button key={sign} type="button" aria-label={`Put ${sign} in`} onClick={() => put(sign)}>
              {sign}
            </Button>
          ))}
          {measures.all
            .filter((each) => each.group !== 'own')
            .map((each) => (
              <Button
                key={each.key}
                type="button"
                title={each.how}
                onClick={() => put(/^[A-Z][A-Z]/.test(each.title) ? each.title : lower(each.title))}
              >
                {each.title}
              </Button>
            ))}
        </div>
        <div className="mt-3 flex min-h-8 items-center gap-2">
          <p className="flex-1 text-ink-2" aria-live="polite">
            {read
              ? `In ${read.unit}. The last 28 days: ${written(read, account)}`
              : wrong
                ? ''
                : 'Its unit is found, and what it is these days is shown, while you write.'}
          </p>
          {read && !read.isMoney && (
            <Choice label="Written" value={form} options={forms} onChange={setForm} />
          )}
          <Button type="submit" tone="ember" disabled={!name.trim() || !read}>
            Keep it
          </Button>
        </div>
      </form>
      {own.length > 0 && (
        <table className="mt-3 w-full border-collapse border-t border-line">
          <caption className="sr-only">Measures that were made</caption>
          <tbody>
            {own.map((each) => (
              <tr key={each.key} className="border-b border-line-soft">
                <th scope="row" className="py-1 pr-3 text-left font-semibold whitespace-nowrap">
                  {each.title}
                </th>
                <td className="w-full text-ink-2">{each.formula}</td>
                <td className="text-right whitespace-nowrap">
                  <Button
                    tone="quiet"
                    aria-label={`Change ${each.title}`}
                    onClick={() => {
                      setName(each.title);
                      setFormula(each.formula ?? '');
                      if (each.form !== 'money') setForm(each.form);
                      input.current?.focus();
                    }}
                  >
                    Change
                  </Button>
                  <Button tone="quiet" aria-label={`Remove ${each.title}`} onClick={() => void remove(each)}>
                    Remove
                  </Button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </Dialog>
  );
}

const lower = (text: string) => text.charAt(0).toLowerCase() + text.slice(1);

function written(read: Schemas['FormulaReading'], account: Parameters<typeof money>[1]) {
  const { now, form } = read;
  if (now === null) return nothing;
  switch (form) {
    case 'money':
      return money(now, account);
    case 'share':
      return percent(now);
    case 'whole':
      return whole(now);
    case 'number':
      return count(now);
  }
}
