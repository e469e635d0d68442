import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState, type FormEvent } from 'react';
import { useAccount } from '../../../api/account';
import { answer, api, type Schemas, type SheetRow } from '../../../api/client';
import { tell, useCommand } from '../../../api/hooks';
import { useKinds } from '../../../api/kinds';
import { Button } from '../../../ui/Button';
import { Dialog } from '../../../ui/Dialog';
import { TextField } from '../../../ui/Field';
import { Segments } from '../../../ui/Segments';
import { count, money, percent, moment } from '../../../ui/format';

type PhraseKind = Schemas['PhraseKind'];

const kindsOfPhrase = [
  { value: 'all', label: 'All' },
  { value: 'question', label: 'Questions' },
  { value: 'offer', label: 'Offers' },
  { value: 'proof', label: 'Proofs' },
  { value: 'callToAction', label: 'Calls to action' },
  { value: 'other', label: 'Other' },
] as const satisfies readonly { value: PhraseKind | 'all'; label: string }[];

const nameOf: Record<PhraseKind, string> = {
  question: 'question',
  offer: 'offer',
  proof: 'proof',
  callToAction: 'call to action',
  other: 'other',
};

interface Props {
  /** The ad that phrases are put into. */
  ad: SheetRow;
  onClose: () => void;
}

/** Phrases of one's own, with where each is used and how it did, beside those of rivals to differ from. */
export function IdeasDialog({ ad, onClose }: Props) {
  const account = useAccount();
  const queries = useQueryClient();
  const kinds = useKinds();
  const run = useCommand();
  const [kind, setKind] = useState<PhraseKind | 'all'>('all');
  const [phrase, setPhrase] = useState('');
  const queryKey = [account.id, 'sheet', 'ideas'];
  const ideas = useQuery({
    queryKey,
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/accounts/{accountId}/ideas', {
          params: { path: { accountId: account.id } },
          signal,
        }),
      ),
  });
  const renew = () => queries.invalidateQueries({ queryKey });
  const keep = useMutation({
    mutationFn: (text: string) =>
      answer(
        api.POST('/api/accounts/{accountId}/ideas', {
          params: { path: { accountId: account.id } },
          body: { text },
        }),
      ),
    onSuccess: () => {
      setPhrase('');
      void renew();
    },
    onError: tell,
  });
  const letGo = useMutation({
    mutationFn: (ideaId: number) =>
      answer(
        api.DELETE('/api/accounts/{accountId}/ideas/{ideaId}', {
          params: { path: { accountId: account.id, ideaId } },
        }),
      ),
    onSuccess: () => void renew(),
    onError: tell,
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (phrase.trim()) keep.mutate(phrase.trim());
  };
  const slots = kinds
    .of(ad.kind)
    .fields.filter((field) => field.name === 'headlines' || field.name === 'descriptions');
  const put = (field: string, text: string) => {
    if (run.isPending) return;
    const lines = ad.values[field];
    run.mutate({
      type: 'setFields',
      items: [{ kind: ad.kind, id: ad.id }],
      values: { [field]: [...(Array.isArray(lines) ? lines.map(String) : []), text] },
      // What somebody else wrote meanwhile is told, not overwritten.
      seen: [{ kind: ad.kind, id: ad.id, version: ad.version }],
    });
  };
  const suits = (of: PhraseKind) => kind === 'all' || of === kind;
  const own = (ideas.data?.own ?? []).filter((each) => suits(each.kind));
  const rivals = (ideas.data?.rivals ?? []).filter((each) => each.kinds.some(suits));
  return (
    <Dialog
      open
      onClose={onClose}
      wide
      title="Ideas"
      description="Your own phrases with where they are used and what the ads with them did in 28 days, beside what rivals say."
      footer={<Button onClick={onClose}>Close</Button>}
    >
      <form onSubmit={submit} className="mb-3 flex items-end gap-2">
        <TextField
          label="Keep a phrase"
          className="flex-1"
          placeholder="Pay after the last note"
          maxLength={400}
          value={phrase}
          onChange={(event) => setPhrase(event.target.value)}
        />
        <Button type="submit" disabled={phrase.trim() === '' || keep.isPending}>
          Keep
        </Button>
      </form>
      <Segments label="What phrases do" value={kind} segments={kindsOfPhrase} onChange={setKind} />
      {ideas.isError && (
        <p role="alert" className="mt-2 text-brick">
          {ideas.error.message}
        </p>
      )}
      <div className="mt-3 grid grid-cols-[minmax(0,1fr)_250px] gap-5 max-[800px]:grid-cols-1">
        <div>
          <table className="w-full">
            <thead>
              <tr className="border-b border-line-strong text-left text-[11.5px] text-ink-3">
                <th scope="col" className="py-1 font-semibold">
                  Phrase
                </th>
                <th scope="col" className="px-2 text-right font-semibold">
                  CTR
                </th>
                <th scope="col" className="px-2 text-right font-semibold">
                  Cost / conv.
                </th>
                <th scope="col" aria-label="What to do" />
              </tr>
            </thead>
            <tbody>
              {own.map((each) => (
                <tr key={each.text} className="border-b border-line-soft align-top">
                  <th scope="row" className="py-1 pr-2 text-left font-normal">
                    <span className={each.id == null ? undefined : 'font-semibold'}>{each.text}</span>
                    <span className="block text-[12px] text-ink-3">
                      {nameOf[each.kind]} · {usedIn(each)}
                      {each.id != null && ' · kept'}
                    </span>
                  </th>
                  <td className="px-2 py-1 text-right">{percent(each.ctr, 1)}</td>
                  <td className="px-2 py-1 text-right">{money(each.costPerConversion, account)}</td>
                  <td className="py-1 text-right whitespace-nowrap">
                    {slots.map((field) => (
                      <Button
                        key={field.name}
                        tone="quiet"
                        className="!px-1.5"
                        aria-label={`+ ${field.partName ?? field.lowLabel}: “${each.text}”`}
                        onClick={() => put(field.name, each.text)}
                      >
                        + {field.partName ?? field.lowLabel}
                      </Button>
                    ))}
                    {each.id != null && (
                      <Button
                        tone="quiet"
                        className="!px-1.5"
                        aria-label={`Let go: “${each.text}”`}
                        onClick={() => letGo.mutate(each.id ?? 0)}
                      >
                        Let go
                      </Button>
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          {ideas.data && own.length === 0 && <p className="py-2 text-ink-3">None of this kind yet.</p>}
        </div>
        <section aria-labelledby="rivals-say">
          <h3 id="rivals-say" className="mb-1 text-[14px]">
            What rivals say
          </h3>
          {ideas.data && rivals.length === 0 && (
            <p className="text-ink-3">
              {kind === 'all'
                ? 'None was seen yet: trace a search in the live copy, and whose ads showed with it is remembered here.'
                : 'No rival that was seen says this: it is yours to say.'}
            </p>
          )}
          <ul>
            {rivals.map((each) => (
              <li
                key={`${each.rival} ${each.headline}`}
                className="border-b border-line-soft py-1 last:border-0"
              >
                <b className="font-semibold">{each.headline}</b> · {each.description}
                <span className="block text-[12px] text-ink-3">
                  {each.rival} · {each.kinds.map((of) => nameOf[of]).join(', ')} ·{' '}
                  {each.searches === 1 ? 'seen once' : `seen in ${count(each.searches)} searches`}, last{' '}
                  {moment(each.lastSeen)}
                </span>
              </li>
            ))}
          </ul>
        </section>
      </div>
    </Dialog>
  );
}

function usedIn(phrase: Schemas['IdeaRow']) {
  const ads = (number: number, as: string) =>
    number === 0 ? null : `${number === 1 ? '1 ad' : `${count(number)} ads`} as ${as}`;
  const used = [ads(phrase.asHeadline, 'headline'), ads(phrase.asDescription, 'description')].filter(Boolean);
  return used.length === 0
    ? 'not yet'
    : `${used.join(', ')}, in ${phrase.adGroups === 1 ? '1 ad group' : `${count(phrase.adGroups)} ad groups`}`;
}
