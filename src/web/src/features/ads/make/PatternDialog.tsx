import { useState } from 'react';
import { useAccount } from '../../../api/account';
import { answer, api, type ItemKind } from '../../../api/client';
import { useCommand } from '../../../api/hooks';
import { useKinds } from '../../../api/kinds';
import { usePreview } from '../../../api/usePreview';
import type { Scope } from '../../../app/scope';
import { AdPreview } from '../../../sheet/editing/AdPreview';
import { Button } from '../../../ui/Button';
import { Choice } from '../../../ui/Choice';
import { Dialog } from '../../../ui/Dialog';
import { CheckField, TextArea, TextField } from '../../../ui/Field';
import { WeightMark } from '../../../ui/Marks';
import { count, plural } from '../../../ui/format';
import { rowsOf } from '../slots/lines';

interface Props {
  scope: Scope;
  onClose: () => void;
}

/** Slots of a pattern to begin with; a free one follows those that are written. */
const leastSlots = 2;

/** Typing rests so long before it is asked what would be made. */
const restMilliseconds = 250;

/** One ad with fields, made for many ad groups: what does not fit is followed by what is shorter. */
export function PatternDialog({ scope, onClose }: Props) {
  const account = useAccount();
  const kinds = useKinds();
  const forms = kinds.all.filter((kind) => kind.adForm);
  const [kind, setKind] = useState<ItemKind>(forms[0]?.kind ?? 'textAd');
  const [written, setWritten] = useState<Record<string, string[]>>({
    headlines: ['[Theme] In [Place]\n[Theme]', 'Ask For A Price'],
    landingPage: ['[page]'],
  });
  const [values, setValues] = useState('');
  const [label, setLabel] = useState('');
  const [onlyWithoutAds, setOnlyWithoutAds] = useState(true);
  const run = useCommand({
    // Somebody changed the account meanwhile: what would be made is looked at again, and nothing was made.
    onProblem: (problem) => {
      setProblem(problem.message);
      made.renew();
    },
  });
  const [problem, setProblem] = useState<string | null>(null);
  const fields = kinds
    .of(kind)
    .fields.filter((field) => (field.isText && field.form === 'lines') || field.name === 'landingPage');
  const slotsOf = (name: string) => written[name] ?? [];
  const wish = {
    kind,
    slots: Object.fromEntries(
      fields
        .map(
          (field) =>
            [
              field.name,
              slotsOf(field.name)
                .map(rowsOf)
                .filter((slot) => slot.length > 0),
            ] as const,
        )
        .filter(([, slots]) => slots.length > 0),
    ),
    places: { campaignId: scope.campaignId, adGroupId: scope.adGroupId, onlyWithoutAds, values },
  };
  const key = JSON.stringify(wish);
  const made = usePreview(
    key,
    (signal) =>
      answer(
        api.POST('/api/accounts/{accountId}/ads/patterned', {
          params: { path: { accountId: account.id } },
          body: JSON.parse(key) as typeof wish,
          signal,
        }),
      ),
    restMilliseconds,
  );
  const noun = (n: number) => kinds.count(n, kind);
  const put = (name: string, place: number, text: string) =>
    setWritten((current) => {
      const slots = [...(current[name] ?? [])];
      slots[place] = text;
      return { ...current, [name]: Array.from(slots, (slot) => slot ?? '') };
    });
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title="Ads from a pattern"
      footer={
        <>
          <Button onClick={onClose}>Leave</Button>
          <Button
            tone="ember"
            disabled={!made.fresh || !made.data || made.data.count === 0 || run.isPending}
            onClick={() => {
              setProblem(null);
              if (!made.data) return;
              run.mutate(
                {
                  type: 'addFromPattern',
                  ...wish,
                  label: label.trim() || null,
                  shown: { asOf: made.data.asOf, items: made.data.count },
                },
                { onSuccess: onClose },
              );
            }}
          >
            Add {noun(made.data?.count ?? 0)}
          </Button>
        </>
      }
    >
      <div className="grid grid-cols-[minmax(0,1fr)_300px] gap-5">
        <div className="flex flex-col gap-2.5">
          <p className="text-ink-2">
            Fields stand in square brackets: <b>[Theme]</b> with large first letters, <b>[theme]</b> as it is.
            In each slot, one alternative a line: what is too long or has no value is followed by the next.
          </p>
          <span className="flex items-center gap-3">
            <Choice
              label="Kind of ad"
              value={kind}
              options={forms.map((each) => ({ value: each.kind, label: each.adForm ?? '' }))}
              onChange={setKind}
            />
            <CheckField
              label="Only ad groups without ads"
              checked={onlyWithoutAds}
              onChange={setOnlyWithoutAds}
            />
          </span>
          {fields.map((field) => {
            const part = field.partName ?? field.lowLabel;
            const name = part.charAt(0).toUpperCase() + part.slice(1);
            const most = field.form === 'lines' ? (field.limits.most ?? leastSlots) : 1;
            const slots = slotsOf(field.name);
            const shown = Math.min(most, Math.max(1, slots.filter((slot) => slot.trim() !== '').length + 1));
            return Array.from({ length: shown }, (_, place) => (
              <TextArea
                key={`${field.name}-${place}`}
                label={most > 1 ? `${name} ${place + 1}` : name}
                rows={2}
                value={slots[place] ?? ''}
                onChange={(event) => put(field.name, place, event.target.value)}
              />
            ));
          })}
          <TextField
            label="Label"
            hint="All of them get it: variants with labels of their own are compared over all their ad groups."
            value={label}
            onChange={(event) => setLabel(event.target.value)}
          />
          <TextArea
            label="More of each ad group"
            hint="Paste a table: ad group, then a column for each field, such as place or price. The first row names them."
            rows={3}
            value={values}
            placeholder={'ad group\tplace\tprice\nPiano tuning\tLeeds\t£90'}
            onChange={(event) => setValues(event.target.value)}
          />
        </div>
        <section aria-label="What it makes" className="sticky top-0 flex flex-col gap-2 self-start">
          {(problem ?? made.error?.message) && (
            <p role="alert" className="text-brick">
              {problem ?? made.error?.message}
            </p>
          )}
          {made.data && (
            <>
              <p className="text-ink-2" role="status">
                {noun(made.data.count)}
                {made.data.shortened > 0 && `, ${count(made.data.shortened)} shortened`}
                {made.data.failing > 0 && `, none for ${plural(made.data.failing, 'ad group')}`}
              </p>
              <p className="text-[12.5px] text-ink-3">
                Fields: {made.data.fields.map((field) => `[${field}]`).join(' ')}
              </p>
              <ul className="flex max-h-[420px] flex-col gap-2 overflow-auto">
                {made.data.ads.map((ad) => (
                  <li key={`${ad.campaign}/${ad.adGroup}`}>
                    <span className="text-[12.5px] text-ink-2">
                      {ad.adGroup} <span className="text-ink-3">· {ad.campaign}</span>
                    </span>
                    {ad.problem ? (
                      <WeightMark weight="caution">{ad.problem}</WeightMark>
                    ) : (
                      <AdPreview kind={kind} values={ad.texts} />
                    )}
                    {!ad.problem && ad.shortened > 0 && (
                      <span className="text-[12px] text-ink-3">
                        shortened in {plural(ad.shortened, 'slot')}
                      </span>
                    )}
                  </li>
                ))}
              </ul>
            </>
          )}
        </section>
      </div>
    </Dialog>
  );
}
