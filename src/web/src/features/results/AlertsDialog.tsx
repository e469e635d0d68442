import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useAccount } from '../../api/account';
import { answer, api, ApiProblem } from '../../api/client';
import { tell, useCampaigns } from '../../api/hooks';
import { useMeasures } from '../../api/measures';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Dialog } from '../../ui/Dialog';
import { TextField } from '../../ui/Field';
import { plural, shortDay } from '../../ui/format';

const sides = [
  { value: 'above', label: 'above' },
  { value: 'below', label: 'below' },
];

const spans = [
  { value: 'each', label: 'on each day' },
  { value: 'together', label: 'all days together' },
];

interface Props {
  figure: string;
  campaignId: number | null;
  onClose: () => void;
}

/** What one wants to be told of, and when it last went off. */
export function AlertsDialog({ figure, campaignId, onClose }: Props) {
  const account = useAccount();
  const queries = useQueryClient();
  const measures = useMeasures();
  const campaigns = useCampaigns().data ?? [];
  const [measure, setMeasure] = useState(figure);
  const [side, setSide] = useState('above');
  const [threshold, setThreshold] = useState('');
  const [days, setDays] = useState('3');
  const [span, setSpan] = useState('each');
  const [of, setOf] = useState(campaignId === null ? 'account' : String(campaignId));
  const [problem, setProblem] = useState<Record<string, string[]>>({});
  const path = { accountId: account.id };
  const alerts = useQuery({
    queryKey: [account.id, 'alerts'],
    queryFn: ({ signal }) =>
      answer(api.GET('/api/accounts/{accountId}/alerts', { params: { path }, signal })),
  });
  const isShare = measures.find(measure)?.form === 'share';
  const change = async (work: () => Promise<unknown>) => {
    try {
      await work();
      setThreshold('');
    } catch (error) {
      if (error instanceof ApiProblem && Object.keys(error.fields).length > 0) setProblem(error.fields);
      else tell(error);
    }
    for (const name of ['alerts', 'desk']) await queries.invalidateQueries({ queryKey: [account.id, name] });
  };
  const add = () =>
    change(() =>
      answer(
        api.POST('/api/accounts/{accountId}/alerts', {
          params: { path },
          body: {
            measure,
            above: side === 'above',
            threshold,
            days: Number(days),
            eachDay: span === 'each',
            eachCampaign: of === 'each',
            campaignId: of === 'account' || of === 'each' ? null : Number(of),
          },
        }),
      ),
    );
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title="Alerts"
      description="Looked for every night, when the reports of a day are in. What went off stands on the desk and in the digest."
    >
      <form
        className="grid grid-cols-[1fr_auto_110px_auto_90px_auto] items-end gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          setProblem({});
          void add();
        }}
      >
        <Choice
          label="Measure"
          isFirst
          value={measure}
          options={measures.all.map((each) => ({ value: each.key, label: each.title }))}
          onChange={setMeasure}
        />
        <Choice label="Side" value={side} options={sides} onChange={setSide} />
        <TextField
          label={
            isShare ? 'Per cent' : measures.find(measure)?.form === 'money' ? account.currency : 'Amount'
          }
          inputMode="decimal"
          value={threshold}
          problem={problem['threshold']?.join(' ')}
          onChange={(event) => setThreshold(event.target.value)}
        />
        <Choice label="How" value={span} options={spans} onChange={setSpan} />
        <TextField
          label="Days"
          inputMode="numeric"
          value={days}
          problem={problem['days']?.join(' ')}
          onChange={(event) => setDays(event.target.value)}
        />
        <Button type="submit" tone="ember" disabled={!threshold.trim() || !(Number(days) > 0)}>
          Add
        </Button>
        <div className="col-span-6">
          <Choice
            label="Where"
            value={of}
            options={[
              { value: 'account', label: 'in the account' },
              { value: 'each', label: 'in each campaign' },
              ...campaigns.map((each) => ({ value: String(each.id), label: `in ${each.name}` })),
            ]}
            onChange={setOf}
          />
        </div>
      </form>
      {alerts.data?.length === 0 && (
        <p className="mt-4 text-ink-2">
          None yet. Say what must not happen: a conversion above what it is worth, an impression share that
          falls.
        </p>
      )}
      <ul className="mt-3">
        {alerts.data?.map((each) => (
          <li key={each.id} className="border-t border-line-soft py-1.5">
            <span className="flex items-center gap-2">
              <b className="flex-1 font-semibold">
                {each.says} <span className="font-normal text-ink-3">· {each.of}</span>
              </b>
              <Button
                tone="quiet"
                aria-label={`Remove the alert ${each.says}`}
                onClick={() =>
                  void change(() =>
                    answer(
                      api.DELETE('/api/accounts/{accountId}/alerts/{alertId}', {
                        params: { path: { ...path, alertId: each.id } },
                      }),
                    ),
                  )
                }
              >
                Remove
              </Button>
            </span>
            <span className="block text-[12.5px] text-ink-2">
              {each.found[0]
                ? `${plural(new Set(each.found.map((found) => found.day)).size, 'day')} of the last 28, last on ${shortDay(each.found[0].day)}: ${each.found[0].campaign ? `${each.found[0].campaign}, ` : ''}${each.found[0].says}`
                : 'It did not go off in the last 28 days.'}
            </span>
          </li>
        ))}
      </ul>
    </Dialog>
  );
}
