import { useState } from 'react';
import type { SheetRow } from '../../../api/client';
import { AdPicture } from '../../../items/AdPicture';
import { seenOf, type TextRead } from '../../../items/useTexts';
import type { Input } from '../../../sheet/editing/FieldEditor';
import { Button } from '../../../ui/Button';
import { count } from '../../../ui/format';
import { Panel } from '../../../ui/Panel';
import { Segments } from '../../../ui/Segments';
import { ComparedTable, measures } from '../compare/Standing';
import { AppealDialog } from './AppealDialog';
import { FitPanel } from './FitPanel';
import { Arranged } from './Arranged';
import { Searched } from './Searched';
import { useCompared, useSearched, useWords, type Measure } from '../useAds';

const mostWords = 10;

const lines = (value: unknown) =>
  (Array.isArray(value) ? (value as string[]) : typeof value === 'string' ? [value] : []).filter(
    (line) => line.trim() !== '',
  );

interface Props {
  row: SheetRow;
  typed: Record<string, Input>;
  /** Its lines as they stand in the form. */
  texts: Record<string, readonly string[]>;
  /** The same as the network reads them. */
  read: readonly TextRead[];
}

/** The ad as people see it while it is written, and what its ad group's keywords ask for. */
export function AdSide({ row, typed, texts, read }: Props) {
  const [wide, setWide] = useState(false);
  const [appealing, setAppealing] = useState(false);
  const words = useWords(row.adGroupId ?? null);
  const [by, setBy] = useState<Measure>('clicks');
  const compared = useCompared({ campaignId: row.campaignId ?? null, adGroupId: row.adGroupId ?? null }, by);
  const [group] = compared.data ?? [];
  const of = (name: string) => lines(typed[name] ?? row.values[name]);
  const seen = (name: string) => seenOf(name, texts[name] ?? [], read);
  const arranging = row.kind === 'responsiveAd';
  const searched = useSearched(row, texts);
  const shown = (words.data ?? []).slice(0, mostWords);
  const clicked = shown.some((word) => word.clicks > 0);
  const weight = (word: (typeof shown)[number]) => (clicked ? word.clicks : word.keywords);
  const most = Math.max(1, ...shown.map(weight));
  return (
    <aside
      data-side
      aria-labelledby="seen-ad"
      className="relative flex flex-col gap-3 p-3 min-[1200px]:min-h-0 min-[1200px]:overflow-auto"
    >
      <div className="flex items-center justify-between">
        <h2 id="seen-ad" className="text-[15px]">
          As people see it
        </h2>
        <span role="group" aria-label="Screen" className="flex gap-1">
          <Button pressed={!wide} onClick={() => setWide(false)}>
            Phone
          </Button>
          <Button pressed={wide} onClick={() => setWide(true)}>
            Wide
          </Button>
        </span>
      </div>
      {arranging ? (
        <Arranged row={row} typed={typed} texts={texts} wide={wide} displayPath={seen('displayPath')} />
      ) : (
        <AdPicture
          wide={wide}
          headlines={seen('headlines')}
          descriptions={seen('descriptions')}
          displayPath={seen('displayPath')}
          landingPage={of('landingPage')[0] ?? ''}
          business={of('businessName')[0]}
          calls={of('callNumber')[0]}
        />
      )}
      {(searched.data ?? []).length > 0 && <Searched searched={searched.data ?? []} />}
      {row.review === 'refused' && row.reviewReason && (
        <Panel title="What the network refused">
          {row.reviewReason.split('\n').map((line) => (
            <p key={line} className="text-ochre">
              ◆ {line}
            </p>
          ))}
          <p className="mt-1 text-ink-3">
            Change it at its slot and publish it again, or ask for another reader.
          </p>
          <Button className="mt-1.5" onClick={() => setAppealing(true)}>
            Appeal…
          </Button>
        </Panel>
      )}
      {group && (
        <Panel title={`Against the others of ${row.adGroup ?? 'its ad group'}`}>
          <Segments label="Compared" value={by} segments={measures} onChange={setBy} />
          <ComparedTable compared={group} current={row.id} />
        </Panel>
      )}
      {row.adGroupId != null && <FitPanel adGroupId={row.adGroupId} />}
      {shown.length > 0 && (
        <Panel title="What its keywords ask for">
          <p className="mb-1 text-[12.5px] text-ink-3">
            {clicked ? 'By clicks of the last 28 days, ' : 'No clicks in 28 days: by keywords, '}and whether
            the ads of {row.adGroup} say it
          </p>
          <table className="w-full">
            <tbody>
              {shown.map((word) => (
                <tr key={word.word}>
                  <th scope="row" className="py-0.5 pr-2 text-left font-normal">
                    {word.word}
                  </th>
                  <td className="w-[45%]">
                    <span aria-hidden className="block h-[7px] rounded-full bg-sunk">
                      <span
                        className="block h-full rounded-full bg-plum"
                        style={{ width: `${(weight(word) / most) * 100}%` }}
                      />
                    </span>
                  </td>
                  <td className="px-2 text-right text-[12.5px] text-ink-3">{count(weight(word))}</td>
                  <td className="w-14 text-right text-[12.5px]">
                    {word.isSaid ? (
                      <span className="text-moss">said</span>
                    ) : (
                      <span className="whitespace-nowrap text-ochre">◆ not</span>
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </Panel>
      )}
      {appealing && <AppealDialog row={row} onClose={() => setAppealing(false)} />}
    </aside>
  );
}
