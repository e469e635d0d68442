import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { answer, api, type Command, type Schemas } from '../../api/client';
import { useAccount } from '../../api/account';
import { count, money, plural, whole } from '../../ui/format';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Dialog } from '../../ui/Dialog';
import { CheckField } from '../../ui/Field';
import { MatchChip } from '../../ui/Marks';

const senses: { value: Schemas['DuplicateSense']; label: string }[] = [
  { value: 'sameText', label: 'the same text' },
  { value: 'sameWords', label: 'the same words, whatever the punctuation' },
  { value: 'sameMeaning', label: 'the same words in any order, plurals too' },
  { value: 'sharedSearches', label: 'a search that several may answer' },
];
const scopes: { value: Schemas['DuplicateScope']; label: string }[] = [
  { value: 'adGroup', label: 'in one ad group' },
  { value: 'campaign', label: 'in one campaign' },
  { value: 'account', label: 'in the whole account' },
];

/** Keywords that say the same, with the figures to choose by; the one that has proved itself is kept. */
export function DuplicatesDialog({
  onClose,
  onPreview,
}: {
  onClose: () => void;
  onPreview: (command: Command) => void;
}) {
  const account = useAccount();
  const [sense, setSense] = useState<Schemas['DuplicateSense']>('sameMeaning');
  const [scope, setScope] = useState<Schemas['DuplicateScope']>('account');
  const [across, setAcross] = useState(false);
  const [turned, setTurned] = useState<ReadonlySet<number>>(new Set());
  // Of keywords that say the same, one is enough; those that only meet in a search are all kept until a person says otherwise.
  const shared = sense === 'sharedSearches';
  const isKept = (id: number, place: number) => (shared || place === 0) !== turned.has(id);
  const request = { sense, scope, acrossMatchTypes: across };
  const report = useQuery({
    queryKey: [account.id, 'duplicates', request],
    queryFn: () =>
      answer(
        api.POST('/api/accounts/{accountId}/duplicates', {
          params: { path: { accountId: account.id } },
          body: request,
        }),
      ),
  });
  const data = report.data;
  const spare = new Set(
    (data?.shown ?? []).flatMap((set) =>
      set.keywords.filter((each, place) => !isKept(each.id, place)).map(({ id }) => id),
    ),
  );
  const items = [...spare].map((id) => ({ kind: 'keyword' as const, id }));
  const turn = (id: number) => {
    const next = new Set(turned);
    if (!next.delete(id)) next.add(id);
    setTurned(next);
  };
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title="Duplicate and competing keywords"
      description={
        data
          ? data.sets === 0
            ? 'None: no two keywords compete in this sense.'
            : shared
              ? `${plural(data.sets, 'search', 'searches')} of the last 28 days may be answered by several keywords. Untick those that should not.`
              : `${plural(data.sets, 'set')} with ${plural(data.spare, 'keyword')} to spare. What brought most conversions stays first; figures are of the last 28 days.`
          : 'Looking through all keywords…'
      }
      footer={
        <>
          <Button onClick={onClose}>Leave as it is</Button>
          <Button
            disabled={items.length === 0}
            onClick={() => onPreview({ type: 'setFields', items, values: { state: 'paused' } })}
          >
            Pause {plural(items.length, 'spare one')}…
          </Button>
          <Button
            tone="brick"
            disabled={items.length === 0}
            onClick={() => onPreview({ type: 'remove', items })}
          >
            Remove {plural(items.length, 'spare one')}…
          </Button>
        </>
      }
    >
      <div className="mb-3 flex flex-wrap items-center gap-3">
        <Choice
          label="What is the same"
          value={sense}
          options={senses}
          onChange={(next) => {
            setTurned(new Set());
            setSense(next);
          }}
        />
        <Choice label="Where" value={scope} options={scopes} onChange={setScope} />
        {!shared && <CheckField label="also across match types" checked={across} onChange={setAcross} />}
      </div>
      {report.isError && <p className="text-brick">{report.error.message}</p>}
      <table className="w-full text-left">
        <thead>
          <tr className="border-b border-line-strong text-[11.5px] text-ink-3">
            <th className="py-1 pr-2 font-semibold">Keep</th>
            <th className="py-1 font-semibold">Keyword</th>
            <th className="py-1 font-semibold">Where</th>
            <th className="py-1 pl-3 text-right font-semibold">Clicks</th>
            <th className="py-1 pl-3 text-right font-semibold">Cost</th>
            <th className="py-1 pl-3 text-right font-semibold">Conv.</th>
            <th className="py-1 pl-3 text-right font-semibold">Cost / conv.</th>
          </tr>
        </thead>
        {data?.shown.map((set) => (
          <tbody key={`${set.form}/${set.keywords[0]?.id}`} className="border-b border-line-strong">
            {shared && (
              <tr>
                <th colSpan={7} className="pt-2 text-left font-semibold">
                  “{set.form}”
                </th>
              </tr>
            )}
            {set.keywords.map((keyword, place) => (
              <tr key={keyword.id}>
                <td className="py-1">
                  <input
                    type="checkbox"
                    className="accent-plum"
                    aria-label={`Keep ${keyword.text} in ${keyword.adGroup}`}
                    checked={isKept(keyword.id, place)}
                    disabled={!shared && place === 0}
                    onChange={() => turn(keyword.id)}
                  />
                </td>
                <td className="py-1 pr-2">
                  {keyword.text} {keyword.match && <MatchChip match={keyword.match} />}
                </td>
                <td className="py-1 pr-2 text-ink-2">
                  {keyword.campaign} / {keyword.adGroup}
                </td>
                <td className="py-1 pl-3 text-right">{whole(keyword.figures.clicks)}</td>
                <td className="py-1 pl-3 text-right">{money(keyword.figures.cost, account)}</td>
                <td className="py-1 pl-3 text-right">{count(keyword.figures.conversions)}</td>
                <td className="py-1 pl-3 text-right">{money(keyword.costPerConversion, account)}</td>
              </tr>
            ))}
          </tbody>
        ))}
      </table>
    </Dialog>
  );
}
