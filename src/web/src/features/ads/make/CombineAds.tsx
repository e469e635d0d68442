import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useDeferredValue, useState } from 'react';
import { useAccount } from '../../../api/account';
import { answer, api, type Schemas, type SheetRow } from '../../../api/client';
import { useCommand } from '../../../api/hooks';
import { textIn, textsIn, useKinds } from '../../../api/kinds';
import { AdPicture } from '../../../items/AdPicture';
import { Button } from '../../../ui/Button';
import { Dialog } from '../../../ui/Dialog';
import { TextArea } from '../../../ui/Field';
import { plural } from '../../../ui/format';
import { WeightMark } from '../../../ui/Marks';
import { Tick } from '../../../ui/Tick';
import { rowsOf } from '../slots/lines';

type Combined = Schemas['CombinedAd'];

const keyOf = (ad: Combined) => [...ad.headlines, '', ...ad.descriptions, ad.landingPage ?? ''].join('\n');

/** Fixed ads of a few alternatives for each slot: all are listed, the nonsense is struck out, the rest is added. */
export function CombineAds({ ad, onClose }: { ad: SheetRow; onClose: () => void }) {
  const account = useAccount();
  const kinds = useKinds();
  const slots = (name: string) =>
    Array.from(
      { length: kinds.field('textAd', name)?.limits.most ?? 2 },
      (_, at) => textsIn(ad, name)[at] ?? '',
    );
  const [headlines, setHeadlines] = useState(slots('headlines'));
  const [descriptions, setDescriptions] = useState(slots('descriptions'));
  const [pages, setPages] = useState(textIn(ad, 'landingPage') ?? '');
  /** What a person decided against what was found. */
  const [decided, setDecided] = useState<ReadonlyMap<string, boolean>>(new Map());
  const asked = useDeferredValue(
    JSON.stringify({
      headlines: headlines.map(rowsOf),
      descriptions: descriptions.map(rowsOf),
      landingPages: rowsOf(pages),
    }),
  );
  const combined = useQuery({
    queryKey: [account.id, 'combined', asked],
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      answer(
        api.POST('/api/accounts/{accountId}/ads/combined', {
          params: { path: { accountId: account.id } },
          body: JSON.parse(asked) as Schemas['AdAlternatives'],
          signal,
        }),
      ),
  });
  const run = useCommand();
  const all = combined.isError ? [] : (combined.data ?? []);
  const isKept = (each: Combined) => decided.get(keyOf(each)) ?? each.problems.length === 0;
  const kept = all.filter(isKept);
  const change = (lines: readonly string[], at: number, text: string) =>
    lines.map((line, place) => (place === at ? text : line));
  const add = () =>
    run.mutate(
      {
        type: 'addItems',
        kind: 'textAd',
        items: kept.map((each) => ({
          headlines: [...each.headlines],
          descriptions: [...each.descriptions],
          landingPage: each.landingPage ?? '',
        })),
        places: { adGroupIds: ad.adGroupId ? [ad.adGroupId] : [] },
      },
      { onSuccess: onClose },
    );
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title={`Combine ads for ${ad.adGroup ?? 'the ad group'}`}
      description="One alternative on each line. Every combination is an ad of its own."
      footer={
        <>
          <Button onClick={onClose}>Leave</Button>
          <Button tone="ember" disabled={kept.length === 0 || run.isPending} onClick={add}>
            Add {plural(kept.length, 'ad')}
          </Button>
        </>
      }
    >
      <div className="grid grid-cols-3 gap-2">
        {headlines.map((text, at) => (
          <TextArea
            key={at}
            label={`Headline ${at + 1}`}
            rows={4}
            value={text}
            onChange={(event) => setHeadlines(change(headlines, at, event.target.value))}
          />
        ))}
        {descriptions.map((text, at) => (
          <TextArea
            key={at}
            label={`Description ${at + 1}`}
            rows={3}
            value={text}
            onChange={(event) => setDescriptions(change(descriptions, at, event.target.value))}
          />
        ))}
        <TextArea
          label="Landing pages"
          rows={3}
          value={pages}
          onChange={(event) => setPages(event.target.value)}
        />
      </div>
      {combined.isError && (
        <p role="alert" className="mt-2 text-brick">
          {combined.error.message}
        </p>
      )}
      <p className="my-2 text-ink-2" role="status">
        {plural(all.length, 'ad')} in all, {plural(all.length - kept.length, 'is', 'are')} struck out.
      </p>
      <ul className="grid max-h-[330px] grid-cols-2 gap-2 overflow-auto">
        {all.map((each) => (
          <li key={keyOf(each)} className="flex gap-2">
            <span className="pt-3">
              <Tick
                label={`Add ${each.headlines.join(' · ')}`}
                checked={isKept(each)}
                onChange={(checked) => setDecided((before) => new Map(before).set(keyOf(each), checked))}
              />
            </span>
            <div className="min-w-0 flex-1">
              <div className={isKept(each) ? undefined : 'line-through opacity-60'}>
                <AdPicture
                  headlines={each.headlines}
                  descriptions={each.descriptions}
                  displayPath={[]}
                  landingPage={each.landingPage ?? ''}
                />
              </div>
              {each.problems.map((problem) => (
                <span key={problem} className="block text-[12.5px]">
                  <WeightMark weight="caution">{problem}</WeightMark>
                </span>
              ))}
            </div>
          </li>
        ))}
      </ul>
    </Dialog>
  );
}
