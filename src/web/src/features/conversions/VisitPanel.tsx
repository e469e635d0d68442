import clsx from 'clsx';
import { Fragment, useState } from 'react';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { useTestVisit, type ConversionAction, type FollowedVisit } from './useConversions';

const devices = [
  { value: 'phone', label: 'on a phone' },
  { value: 'desktop', label: 'on a desktop' },
] as const;

/** A test visit from the click to what the network hears of it. */
export function VisitPanel({ action }: { action: ConversionAction }) {
  const [device, setDevice] = useState<'phone' | 'desktop'>('phone');
  const visit = useTestVisit();
  // The button stays as it is meanwhile: whoever pressed it keeps the keyboard.
  const follow = () => !visit.isPending && visit.mutate({ actionId: action.id, device });
  return (
    <section
      className="relative rounded-lg border border-line bg-sheet p-3"
      aria-label="A visit, followed hop by hop"
    >
      <div className="flex flex-wrap items-center gap-2">
        <h2 className="text-[14px]">A visit, followed hop by hop</h2>
        <span className="text-ink-3">{visit.data ? visit.data.title : action.name}</span>
        <div className="ml-auto flex items-center gap-2">
          <Choice label="Device" value={device} options={devices} onChange={setDevice} />
          <Button tone="plum" onClick={follow}>
            {visit.isPending ? 'On the way …' : 'Follow a test visit'}
          </Button>
        </div>
      </div>
      {visit.isError && (
        <p role="alert" className="mt-2 text-brick">
          {visit.error.message}
        </p>
      )}
      <div aria-live="polite">
        {visit.data ? (
          <Hops visit={visit.data} />
        ) : (
          <p className="mt-1.5 text-ink-2">
            Clicks an ad as somebody would, opens its page, does what “{action.name}” counts, and tells what
            the network hears of it. It is in no report.
          </p>
        )}
      </div>
    </section>
  );
}

function Hops({ visit }: { visit: FollowedVisit }) {
  return (
    <>
      <ol className="mt-2.5 flex items-stretch">
        {visit.hops.map((hop, at) => (
          <Fragment key={at}>
            {at > 0 && (
              <li aria-hidden className="flex w-[62px] shrink-0 flex-col justify-center px-1 text-center">
                <span
                  className={clsx(
                    'border-t-2',
                    hop.isCarried ? 'border-line-strong' : 'border-dashed border-brick',
                  )}
                />
                <span
                  className={clsx(
                    'pt-0.5 text-[11.5px] leading-tight',
                    hop.isCarried ? 'text-ink-3' : 'font-semibold text-brick',
                  )}
                >
                  {hop.link}
                </span>
              </li>
            )}
            <li
              className={clsx(
                'min-w-0 flex-1 rounded-lg border p-2',
                hop.isFine ? 'border-line-strong bg-sheet' : 'border-brick bg-brick-wash',
              )}
            >
              <div className="font-semibold">
                {!hop.isFine && <span className="text-brick">■ </span>}
                {hop.name}
              </div>
              <div className="text-[12.5px] leading-snug [overflow-wrap:anywhere] text-ink-2">
                {hop.link && <span className="sr-only">{hop.link}; </span>}
                {hop.says}
              </div>
            </li>
          </Fragment>
        ))}
      </ol>
      <p className={clsx('mt-2', visit.isCounted ? 'text-ink-2' : 'text-brick')}>
        {!visit.isCounted && '■ '}
        {visit.says}
      </p>
    </>
  );
}
