import { useState } from 'react';
import { useScope } from '../../app/scope';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { fullDay } from '../../ui/format';
import { isHome } from '../../ui/home';
import { Empty, PageHead } from '../../ui/Panel';
import { CallLog } from './CallLog';
import { CallSide } from './CallSide';
import { MissedPanel } from './MissedPanel';
import { NumbersDialog } from './NumbersDialog';
import { useCalls, type CallRequest, type Calls } from './useCalls';
import { WhenItRings } from './WhenItRings';

const periods = [1, 4, 8, 13, 26].map((weeks) => ({
  value: String(weeks),
  label: weeks === 1 ? 'Last week' : `Last ${weeks} weeks`,
}));

/** The calls that ads brought: how many, when it rings and who answers, and what was paid for those in vain. */
export function CallsPage() {
  const { campaignId, adGroupId } = useScope();
  const [request, setRequest] = useState<Omit<CallRequest, 'campaignId' | 'adGroupId'>>({
    weeks: 8,
    by: 'call',
    days: 'weekdays',
    onceEach: false,
    offset: 0,
  });
  const [showsNumbers, setNumbers] = useState(false);
  const change = (part: Partial<CallRequest>) => setRequest((before) => ({ ...before, offset: 0, ...part }));
  const calls = useCalls({ ...request, campaignId, adGroupId });
  if (calls.isError && !calls.data)
    return (
      <p role="alert" className="p-4 text-brick">
        {calls.error.message}
      </p>
    );
  if (!calls.data) return <p className="p-4 text-ink-3">Looking at the calls …</p>;
  const { data } = calls;
  return (
    <div className="flex h-full min-h-0 flex-col">
      <PageHead
        title="Calls"
        note={
          data.first && data.last
            ? `${fullDay(data.first)} – ${fullDay(data.last)}, against as many days before`
            : undefined
        }
      >
        <Button onClick={() => setNumbers(true)}>Numbers…</Button>
        <Choice
          label="Weeks"
          value={String(request.weeks)}
          options={periods}
          onChange={(next) => change({ weeks: Number(next) })}
        />
      </PageHead>
      {showsNumbers && <NumbersDialog onClose={() => setNumbers(false)} />}
      {data.now.rang + data.before.rang === 0 ? (
        <Empty title="Nobody has called yet">
          Calls to the number beside an ad, and to the number on a page with the network’s tag, stand here
          with what led to them. Put a number beside the ads in Extensions, and let a day go by.
        </Empty>
      ) : (
        <OfAccount calls={data} request={{ ...request, campaignId, adGroupId }} onChange={change} />
      )}
    </div>
  );
}

interface Props {
  calls: Calls;
  request: CallRequest;
  onChange: (part: Partial<CallRequest>) => void;
}

function OfAccount({ calls, request, onChange }: Props) {
  return (
    <div className="grid min-h-0 flex-1 max-[1099px]:block max-[1099px]:overflow-auto min-[1100px]:grid-cols-[292px_minmax(0,1fr)]">
      <CallSide calls={calls} onceEach={request.onceEach} onOnceEach={(onceEach) => onChange({ onceEach })} />
      <div
        {...isHome}
        tabIndex={0}
        role="region"
        aria-label="Calls, hour by hour and one by one"
        className="flex min-h-0 min-w-0 flex-col overflow-auto bg-sheet"
      >
        <div className="grid gap-3 p-3 max-[899px]:grid-cols-1 min-[900px]:grid-cols-[minmax(0,1.25fr)_minmax(0,1fr)]">
          <WhenItRings calls={calls} days={request.days} onDays={(days) => onChange({ days })} />
          <MissedPanel calls={calls} />
        </div>
        <CallLog
          calls={calls}
          request={request}
          onBy={(by) => onChange({ by })}
          onOffset={(offset) => onChange({ offset })}
        />
      </div>
    </div>
  );
}
