import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { ChevronDown } from 'lucide-react';
import type { ItemKind, SheetRow } from '../../api/client';
import { useKinds } from '../../api/kinds';
import { useGo, useScope } from '../../app/scope';
import { ItemDialog } from '../../sheet/editing/ItemDialog';
import type { Input } from '../../sheet/editing/FieldEditor';
import { Button } from '../../ui/Button';
import { Menu } from '../../ui/Menu';
import { Empty } from '../../ui/Panel';
import { count } from '../../ui/format';
import { AdEditor, slotsOf } from './AdEditor';
import { AdList, headlinesOf } from './AdList';
import { AdSide } from './aside/AdSide';
import { CombineAds } from './make/CombineAds';
import { useTexts } from '../../items/useTexts';
import { IdeasDialog } from './make/IdeasDialog';
import { PatternDialog } from './make/PatternDialog';
import { VariantsDialog } from './compare/VariantsDialog';
import { VersionsDialog } from './compare/VersionsDialog';
import { useAds } from './useAds';
import { WorseAds } from './compare/WorseAds';

/** Ads are written: slots with their length, what reviewers would say, and the ad as people see it. */
export function AdsPage() {
  const scope = useScope();
  const go = useGo();
  const [parameters, setParameters] = useSearchParams();
  const ads = useAds(scope);
  const kinds = useKinds();
  const [adding, setAdding] = useState<ItemKind | null>(null);
  const [worse, setWorse] = useState(false);
  const [patterning, setPatterning] = useState(false);
  const [varying, setVarying] = useState(false);
  const rows = ads.data?.rows ?? [];
  const asked = Number(parameters.get('ad'));
  const ad = rows.find((row) => row.id === asked) ?? rows[0];
  // They are counted only when they are not all here.
  const more = ads.data?.more ?? false;
  const choose = (id: number) =>
    setParameters((current) => {
      const next = new URLSearchParams(current);
      next.set('ad', String(id));
      return next;
    });
  return (
    <div className="grid h-full min-h-0 grid-cols-[272px_minmax(0,1fr)] max-[900px]:block max-[1199px]:overflow-auto min-[1200px]:grid-cols-[272px_minmax(0,1fr)_328px]">
      <div className="flex min-h-0 flex-col border-r border-line bg-sheet">
        <div className="flex items-center justify-between gap-2 border-b border-line px-3 py-2">
          <h1 className="text-[17px]">
            Ads{' '}
            <span className="font-body text-[12.5px] font-normal text-ink-3">
              {ads.data && (more ? `the first ${count(rows.length)}` : count(rows.length))}
            </span>
          </h1>
          <span className="flex gap-1.5">
            <Menu
              trigger={
                <Button>
                  Compare <ChevronDown aria-hidden size={13} />
                </Button>
              }
              entries={[
                { label: 'Surely worse ads…', onSelect: () => setWorse(true) },
                { label: 'Variants over many ad groups…', onSelect: () => setVarying(true) },
              ]}
            />
            <Menu
              trigger={
                <Button>
                  New ad <ChevronDown aria-hidden size={13} />
                </Button>
              }
              entries={[
                ...kinds.all
                  .filter((kind) => kind.adForm)
                  .map((kind) => ({
                    label: `${(kind.adForm ?? '').charAt(0).toUpperCase()}${(kind.adForm ?? '').slice(1)}…`,
                    onSelect: () => setAdding(kind.kind),
                  })),
                { label: 'From a pattern…', onSelect: () => setPatterning(true) },
              ]}
            />
          </span>
        </div>
        {ads.isError && (
          <p role="alert" className="p-3 text-brick">
            {ads.error.message}
          </p>
        )}
        <AdList
          ads={rows}
          chosen={ad?.id ?? null}
          placed={scope.adGroupId === null}
          onChoose={(row) => choose(row.id)}
        />
        {more && (
          <p className="border-t border-line px-3 py-1.5 text-[12.5px] text-ink-3">
            There may be more: choose a campaign or an ad group at the top.
          </p>
        )}
      </div>
      {ad ? (
        <OneAd
          key={ad.id}
          ad={ad}
          onChoose={choose}
          onStructure={() =>
            go('plan/structure', {
              campaign: ad.campaignId ?? null,
              adGroup: ad.adGroupId ?? null,
              focus: `${ad.kind}:${ad.id}`,
            })
          }
        />
      ) : (
        ads.data && (
          <div className="min-[1200px]:col-span-2">
            <Empty title="No ads here yet">
              An ad group shows nothing without an ad. <i>New ad</i> writes the first; a list can bring many
              at once.
            </Empty>
          </div>
        )
      )}
      {varying && <VariantsDialog onClose={() => setVarying(false)} />}
      {patterning && <PatternDialog scope={scope} onClose={() => setPatterning(false)} />}
      {worse && <WorseAds scope={scope} onClose={() => setWorse(false)} />}
      {adding && (
        <ItemDialog
          kind={adding}
          row={null}
          place={{ campaignId: scope.campaignId, adGroupId: scope.adGroupId ?? ad?.adGroupId ?? null }}
          onClose={() => setAdding(null)}
        />
      )}
    </div>
  );
}

interface OneAdProps {
  ad: SheetRow;
  onChoose: (id: number) => void;
  onStructure: () => void;
}

function OneAd({ ad, onChoose, onStructure }: OneAdProps) {
  const [typed, setTyped] = useState<Record<string, Input>>({});
  const [combining, setCombining] = useState(false);
  const [beside, setBeside] = useState(false);
  const [thinking, setThinking] = useState(false);
  const kind = useKinds().of(ad.kind);
  const texts = Object.fromEntries(
    slotsOf(kind.fields).map((field) => {
      const value = typed[field.name] ?? ad.values[field.name];
      return [field.name, Array.isArray(value) ? value.map(String) : []];
    }),
  );
  const said = ad.review === 'refused' ? (ad.reviewReason ?? null) : null;
  const read = useTexts(ad.kind, texts, { said }).data ?? [];
  return (
    <>
      <div className="min-h-0 overflow-auto px-4 py-3">
        <div className="mb-2 flex flex-wrap items-center gap-x-3 gap-y-1">
          <h2 className="basis-full truncate text-[17px]">
            {read.find((each) => each.field === kind.fields.find((field) => field.isName)?.name)?.seen ||
              (headlinesOf(ad)[0] ?? 'Ad without a headline')}
          </h2>
          <span className="min-w-0 flex-1 truncate text-ink-3">
            {kind.adForm} in {ad.campaign} / {ad.adGroup}
          </span>
          <span className="ml-auto flex gap-1.5">
            {ad.kind === 'textAd' && <Button onClick={() => setCombining(true)}>Combine…</Button>}
            <Button onClick={() => setThinking(true)}>Ideas…</Button>
            <Button onClick={() => setBeside(true)}>Side by side…</Button>
            <Button onClick={onStructure}>In Structure</Button>
          </span>
        </div>
        <AdEditor row={ad} typed={typed} read={read} onTyped={setTyped} />
      </div>
      <AdSide row={ad} typed={typed} texts={texts} read={read} />
      {combining && <CombineAds ad={ad} onClose={() => setCombining(false)} />}
      {thinking && <IdeasDialog ad={ad} onClose={() => setThinking(false)} />}
      {beside && (
        <VersionsDialog
          ad={ad}
          onClose={() => setBeside(false)}
          onGo={(id) => {
            setBeside(false);
            onChoose(id);
          }}
        />
      )}
    </>
  );
}
