import type { Schemas } from '../../api/client';
import { useGo } from '../../app/scope';
import { AdPicture } from '../../items/AdPicture';
import { Button } from '../../ui/Button';
import { Panel } from '../../ui/Panel';

/** What the person sees, and where a click leads. */
export function WhatIsSeen({ trace }: { trace: Schemas['SearchTrace'] }) {
  const go = useGo();
  const ad = trace.ad;
  const answering = trace.keywords.find((keyword) => keyword.answers);
  return (
    <aside
      data-side
      aria-labelledby="seen"
      className="flex flex-col gap-3 p-3 max-[1199px]:col-start-2 min-[1200px]:min-h-0 min-[1200px]:overflow-auto"
    >
      <h2 id="seen" className="text-[15px]">
        What the person sees
      </h2>
      {ad ? (
        <>
          <AdPicture {...ad} landingPage={ad.landingPage ?? ''} search={trace.search} />
          <Button
            onClick={() =>
              go('plan/structure', {
                campaign: answering?.campaignId ?? null,
                adGroup: answering?.adGroupId ?? null,
                focus: `textAd:${ad.id}`,
              })
            }
          >
            Go to this ad
          </Button>
          <Panel title="Landing page">
            <span className="break-all text-ink-2">{ad.landingPage ?? 'none'}</span>
          </Panel>
        </>
      ) : (
        <p className="text-ink-2">Nothing of this account.</p>
      )}
    </aside>
  );
}
