import { useQuery } from '@tanstack/react-query';
import { useState, type ReactNode } from 'react';
import { useAccount } from '../../../api/account';
import { answer, api, type Schemas, type SheetRow } from '../../../api/client';
import { useCommand } from '../../../api/hooks';
import { useKinds } from '../../../api/kinds';
import { AdPicture } from '../../../items/AdPicture';
import { MarkedText } from '../../../items/MarkedText';
import { Button } from '../../../ui/Button';
import { Dialog } from '../../../ui/Dialog';
import { moment, percent } from '../../../ui/format';
import { Segments } from '../../../ui/Segments';
import { useCompared, type Measure } from '../useAds';
import { measures, standingOf } from './Standing';

const against = [
  { value: 'others', label: 'The other ads' },
  { value: 'versions', label: 'Earlier versions' },
] as const;

interface Props {
  ad: SheetRow;
  onGo: (id: number) => void;
  onClose: () => void;
}

/** An ad beside the other ads of its ad group, or beside what it was: what is otherwise there is marked. */
export function VersionsDialog({ ad, onGo, onClose }: Props) {
  const account = useAccount();
  const kinds = useKinds();
  const [side, setSide] = useState<(typeof against)[number]['value']>('others');
  const [by, setBy] = useState<Measure>('clicks');
  const run = useCommand();
  const read = useQuery({
    queryKey: [account.id, 'sheet', 'adVersions', ad.kind, ad.id, ad.version],
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/accounts/{accountId}/ads/{adId}/versions', {
          params: { path: { accountId: account.id, adId: ad.id } },
          signal,
        }),
      ),
  });
  const compared = useCompared({ campaignId: ad.campaignId ?? null, adGroupId: ad.adGroupId ?? null }, by);
  const figures = new Map(compared.data?.flatMap((group) => group.ads).map((each) => [each.adId, each]));
  const figure = (id: number) => {
    const known = figures.get(id);
    return known && `${percent(known.share, 2)}, ${standingOf(known)}`;
  };
  const told = read.data;
  return (
    <Dialog
      open
      onClose={onClose}
      wide
      title="Side by side"
      description="What the others say otherwise than this ad is marked."
      footer={<Button onClick={onClose}>Close</Button>}
    >
      <div className="mb-3 flex items-center justify-between gap-3">
        <Segments label="Against" value={side} segments={against} onChange={setSide} />
        {side === 'others' && figures.size > 0 && (
          <Segments label="Compared by" value={by} segments={measures} onChange={setBy} />
        )}
      </div>
      {read.isError && (
        <p role="alert" className="text-brick">
          {read.error.message}
        </p>
      )}
      {told && (
        <ol aria-label="Ads side by side" tabIndex={0} className="flex gap-3 overflow-x-auto pb-2">
          <Column
            title="This ad, now"
            note={side === 'others' ? figure(ad.id) : undefined}
            ad={told.now}
            written={told.written}
            isFirst
          />
          {side === 'others' &&
            told.others.map((other) => (
              <Column
                key={`${other.kind}${other.id}`}
                title={kinds.of(other.kind).adForm ?? kinds.noun(other.kind)}
                note={figure(other.id)}
                ad={other.ad}
                written={other.written}
                differences={other.differences
                  .filter((each) => !each.inPicture)
                  .map((each) => `${each.field}: ${each.after ?? 'none'} (here ${each.before ?? 'none'})`)}
              >
                <Button onClick={() => onGo(other.id)}>Go to it</Button>
              </Column>
            ))}
          {side === 'versions' &&
            told.versions.map((version, place) => (
              <Column
                key={version.stepId ?? 'live'}
                title={version.stepId == null ? 'Live copy' : `Until ${moment(version.until ?? '')}`}
                note={
                  version.stepId == null ? 'what the network serves' : `${version.person}: ${version.label}`
                }
                ad={version.ad}
                written={version.written}
                differences={version.differences
                  .filter((each) => !each.inPicture)
                  .map((each) => `${each.field}: ${each.before ?? 'none'} (now ${each.after ?? 'none'})`)}
              >
                <Button
                  aria-label={`Put it back: version ${place + 1}`}
                  onClick={() => {
                    if (run.isPending) return;
                    run.mutate({
                      type: 'setFields',
                      items: [{ kind: ad.kind, id: ad.id }],
                      values: version.values,
                      // What somebody else changed meanwhile is told, not overwritten.
                      seen: [{ kind: ad.kind, id: ad.id, version: ad.version }],
                    });
                  }}
                >
                  Put it back
                </Button>
              </Column>
            ))}
        </ol>
      )}
      {told && (side === 'others' ? told.others : told.versions).length === 0 && (
        <p className="text-ink-2">
          {side === 'others'
            ? 'It is the only ad of its ad group.'
            : 'It was never otherwise, as far as the history goes back.'}
        </p>
      )}
    </Dialog>
  );
}

interface ColumnProps {
  title: string;
  note?: string;
  ad: Schemas['SeenAd'];
  written: readonly Schemas['WrittenLines'][];
  differences?: readonly string[];
  isFirst?: boolean;
  children?: ReactNode;
}

function Column({ title, note, ad, written, differences = [], isFirst, children }: ColumnProps) {
  return (
    <li
      className={`flex w-[244px] shrink-0 flex-col gap-2 ${isFirst ? 'sticky left-0 z-10 bg-sheet pr-3 shadow-[1px_0_0_var(--color-line)]' : ''}`}
    >
      <span>
        <b className="block font-semibold first-letter:uppercase">{title}</b>
        <span className="line-clamp-2 min-h-[2.9em] text-[12.5px] text-ink-3" title={note}>
          {note}
        </span>
      </span>
      <AdPicture {...ad} landingPage={ad.landingPage ?? ''} />
      {written.map((lines) => (
        <span key={lines.label} className="text-[12.5px]">
          <span className="block font-semibold text-ink-2">{lines.label}</span>
          {lines.lines.map((parts, place) => (
            <span key={place} className="block border-b border-line-soft py-0.5">
              <MarkedText parts={isFirst ? parts.map((part) => ({ ...part, isNew: false })) : parts} />
            </span>
          ))}
        </span>
      ))}
      {differences.map((each) => (
        <span key={each} className="text-[12.5px] break-words text-ink-2">
          {each}
        </span>
      ))}
      {children && <span className="mt-auto pt-1">{children}</span>}
    </li>
  );
}
