import type { Schemas } from '../../api/client';
import { useKinds } from '../../api/kinds';
import { useGo } from '../../app/scope';
import { AdPicture } from '../../items/AdPicture';
import { Button } from '../../ui/Button';
import { WeightMark } from '../../ui/Marks';
import { Panel } from '../../ui/Panel';

/** What the person sees, and where a click leads. */
export function WhatIsSeen({ trace }: { trace: Schemas['SearchTrace'] }) {
  const go = useGo();
  const kinds = useKinds();
  const ad = trace.ad;
  const away = ad?.beside?.filter((each) => !each.shows) ?? [];
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
                focus: `${ad.kind}:${ad.id}`,
              })
            }
          >
            Go to this ad
          </Button>
          {!ad.calls && (
            <Panel title="Landing page">
              <span className="break-all text-ink-2">{ad.landingPage ?? 'none'}</span>
            </Panel>
          )}
          {away.length > 0 && (
            <Panel title="What could show beside it, and does not">
              <ul>
                {away.map((each) => (
                  <li
                    key={`${each.kind}${each.id}`}
                    className="border-b border-line-soft py-0.5 last:border-0"
                  >
                    <span className="text-ink-2">{each.text}</span>
                    <span className="block text-[12px] text-ink-3">
                      {kinds.noun(each.kind)}, {each.from === 'adGroup' ? 'ad group' : each.from} · {each.why}
                    </span>
                  </li>
                ))}
              </ul>
            </Panel>
          )}
          {ad.click && (
            <Panel title={`A click leads to, by the template of the ${kinds.noun(ad.click.from)}`}>
              <span className="break-all text-ink-2">{ad.click.address ?? 'no address'}</span>
              {ad.click.problems.map((problem) => (
                <span key={problem.code} className="mt-1 block">
                  <WeightMark weight={problem.weight}>{problem.detail}</WeightMark>
                </span>
              ))}
            </Panel>
          )}
        </>
      ) : (
        <p className="text-ink-2">Nothing of this account.</p>
      )}
    </aside>
  );
}
