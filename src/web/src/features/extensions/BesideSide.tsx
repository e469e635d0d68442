import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { useCommand } from '../../api/hooks';
import { textIn, textsIn, useKinds } from '../../api/kinds';
import { AdPicture } from '../../items/AdPicture';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Panel } from '../../ui/Panel';
import { AddHere } from './AddHere';
import { useShown, useSomeAd, type Row, type When } from './useExtensions';

const weekdays = ['monday', 'tuesday', 'wednesday', 'thursday', 'friday', 'saturday', 'sunday'].map(
  (day) => ({
    value: day,
    label: day.charAt(0).toUpperCase() + day.slice(1, 3),
  }),
);
const hours = Array.from({ length: 24 }, (_, hour) => ({
  value: String(hour),
  label: `${String(hour).padStart(2, '0')}:00`,
}));

interface Props {
  row: Row;
  kind: Schemas['ItemKind'];
  /** Places to add to. */
  chosen: readonly Row[];
}

/** What would show beside an ad of a place, why the rest would not, and adding to what is chosen. */
export function BesideSide({ row, kind, chosen }: Props) {
  const kinds = useKinds();
  const [when, setWhen] = useState<When>({ device: 'phone', weekday: 'tuesday', hour: 10 });
  const place = { campaignId: row.campaignId ?? null, adGroupId: row.adGroupId ?? null };
  const shown = useShown(place, when);
  const ad = useSomeAd(place);
  const run = useCommand();
  const considered = (shown.data?.considered ?? []).filter((each) => each.kind === kind);
  const wide = when.device !== 'phone';
  return (
    <aside
      data-side
      aria-labelledby="beside"
      className="flex flex-col gap-3 border-l border-line p-3 max-[1099px]:border-t max-[1099px]:border-l-0 min-[1100px]:min-h-0 min-[1100px]:overflow-auto"
    >
      <h2 id="beside" className="text-[15px]">
        What would show <span className="font-body text-[13px] font-normal text-ink-3">in {row.name}</span>
      </h2>
      <div className="flex flex-wrap gap-1.5">
        <span role="group" aria-label="Screen" className="flex gap-1">
          <Button pressed={!wide} onClick={() => setWhen({ ...when, device: 'phone' })}>
            Phone
          </Button>
          <Button pressed={wide} onClick={() => setWhen({ ...when, device: 'desktop' })}>
            Wide
          </Button>
        </span>
        <Choice
          label="Day"
          value={when.weekday}
          options={weekdays}
          onChange={(weekday) => setWhen({ ...when, weekday })}
        />
        <Choice
          label="Hour"
          value={String(when.hour)}
          options={hours}
          onChange={(hour) => setWhen({ ...when, hour: Number(hour) })}
        />
      </div>
      {ad.data && (
        <AdPicture
          wide={wide}
          headlines={textsIn(ad.data, 'headlines')}
          descriptions={textsIn(ad.data, 'descriptions')}
          displayPath={textsIn(ad.data, 'displayPath')}
          landingPage={textIn(ad.data, 'landingPage') ?? ''}
          beside={shown.data?.considered}
        />
      )}
      {shown.isError && (
        <p role="alert" className="text-brick">
          {shown.error.message}
        </p>
      )}
      {chosen.length > 0 && <AddHere key={kind} kind={kind} rows={chosen} />}
      <Panel
        title={
          kind === 'callout' && shown.data
            ? `${kinds.title(kind)}: one line holds ${shown.data.lineRoom} characters here`
            : kinds.title(kind)
        }
      >
        {considered.length === 0 && (
          <p className="text-ink-3">None in reach. Choose cells of the column to add some.</p>
        )}
        <ul>
          {considered.map((each) => (
            <li key={each.id} className="flex items-start gap-2 border-b border-line-soft py-1 last:border-0">
              <span className="min-w-0 flex-1">
                <span className={each.shows ? 'font-semibold' : 'text-ink-3'}>{each.text}</span>
                <span className="block text-[12px] text-ink-3">
                  {each.from === row.level
                    ? 'here'
                    : `↑ from the ${each.from === 'adGroup' ? 'ad group' : each.from}`}
                  {each.why && ` · ${each.why}`}
                </span>
              </span>
              {each.shows && <span className="text-[12px] text-moss">shows</span>}
              {each.from === row.level && (
                <Button
                  tone="quiet"
                  aria-label={`Remove ${each.text}`}
                  className="!px-1 !py-0"
                  onClick={() => run.mutate({ type: 'remove', items: [{ kind: each.kind, id: each.id }] })}
                >
                  Remove
                </Button>
              )}
            </li>
          ))}
        </ul>
      </Panel>
    </aside>
  );
}
