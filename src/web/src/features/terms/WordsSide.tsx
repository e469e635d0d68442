import clsx from 'clsx';
import { useState, type KeyboardEvent } from 'react';
import { useAccount } from '../../api/account';
import { useScope } from '../../app/scope';
import { count, money } from '../../ui/format';
import { CheckField } from '../../ui/Field';
import { goHome } from '../../ui/home';
import { Panel } from '../../ui/Panel';
import { Segments } from '../../ui/Segments';
import { useTermWords, type TermPage, type TermWord } from './useTerms';

const sizes = [
  { value: '1', label: 'Words' },
  { value: '2', label: 'Pairs' },
  { value: '3', label: 'Threes' },
] as const;

type Size = (typeof sizes)[number]['value'];

interface Props {
  page: TermPage;
  weeks: number;
  word: string | null;
  onWord: (word: string | null) => void;
}

/** Words across all terms: one that wastes in hundreds of rare terms is found here. */
export function WordsSide({ page, weeks, word, onWord }: Props) {
  const account = useAccount();
  const { campaignId, adGroupId } = useScope();
  const [size, setSize] = useState<Size>('1');
  const [unsold, setUnsold] = useState(false);
  const words = useTermWords({ campaignId, adGroupId }, weeks, Number(size), unsold);
  // A word of nearly every search would make all other bars invisible: it runs over the scale.
  const most = Math.max(
    1,
    ...(words.data ?? []).map((each) => each.cost).filter((cost) => cost < page.all.cost / 2),
  );
  return (
    <aside
      aria-label="Words in all of them"
      className="flex min-h-0 flex-col border-r border-line-strong bg-paper p-2.5 max-[1099px]:max-h-80"
    >
      <h2 className="text-[15px]">Words in all of them</h2>
      <p className="mt-0.5 mb-1.5 text-[12px] text-ink-3">
        cost of terms with the word; solid: terms that brought a conversion
      </p>
      <Segments label="Words in a row" value={size} segments={sizes} onChange={setSize} />
      <div className="mt-1.5">
        <CheckField label="Never brought a conversion" checked={unsold} onChange={setUnsold} />
      </div>
      <div className="mt-1 min-h-0 flex-1 overflow-auto pr-2.5">
        <table className="w-full table-fixed">
          <thead className="sticky top-0 bg-paper">
            <tr className="text-[12px] text-ink-3">
              <th scope="col" className="text-left font-semibold">
                word
              </th>
              <th scope="col" className="w-[50px]">
                <span className="sr-only">share</span>
              </th>
              <th scope="col" className="w-[64px] text-right font-semibold">
                cost
              </th>
              <th scope="col" className="w-[30px] pl-1 text-right font-semibold">
                conv.
              </th>
            </tr>
          </thead>
          <tbody id="words" onKeyDown={(event) => goByWord(event)}>
            {words.data?.map((each, at) => (
              <tr key={each.word} className="h-[25px]">
                <th scope="row" className="p-0 text-left font-normal">
                  <button
                    type="button"
                    // One stop for all words; the arrows go on from there.
                    tabIndex={
                      each.word ===
                      (words.data.some(({ word: one }) => one === word) ? word : words.data[0]?.word)
                        ? 0
                        : -1
                    }
                    data-word={at}
                    aria-pressed={each.word === word}
                    title={`${each.word}: ${each.terms} terms`}
                    className={clsx(
                      'block min-h-[24px] w-full truncate rounded-sm px-1 text-left',
                      each.word === word ? 'bg-plum-wash font-semibold' : 'hover:bg-sunk',
                    )}
                    onClick={() => {
                      onWord(each.word === word ? null : each.word);
                      goHome();
                    }}
                  >
                    {each.word}
                  </button>
                </th>
                <td className="px-1">
                  <CostBar word={each} most={most} />
                </td>
                <td className="text-right whitespace-nowrap">{money(each.cost, account)}</td>
                <td className="pl-1.5 text-right">{count(each.conversions)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {page.wasted > 0 && (
        <Panel className="mt-2 text-[13px]">
          <strong>{money(page.wasted, account)}</strong> of {money(page.all.cost, account)} went to terms with
          a word that never brought a conversion.
        </Panel>
      )}
    </aside>
  );
}

/** The arrows go from word to word, Esc back to the terms. */
function goByWord(event: KeyboardEvent<HTMLElement>) {
  const at = Number((event.target as HTMLElement).dataset['word']);
  const next = { ArrowDown: at + 1, ArrowUp: at - 1 }[event.key];
  if (next !== undefined) event.currentTarget.querySelector<HTMLElement>(`[data-word="${next}"]`)?.focus();
  else if (event.key === 'Escape') goHome();
  else return;
  event.preventDefault();
}

/** What a word cost, on one scale with the others; hatched where nothing came of it. */
function CostBar({ word, most }: { word: TermWord; most: number }) {
  const width = (amount: number) => `${(100 * amount) / most}%`;
  return (
    <span aria-hidden className="flex h-[9px] w-full overflow-hidden">
      <span className="shrink-0 bg-plum" style={{ width: width(word.sold) }} />
      <span className="shrink-0 bg-missed" style={{ width: width(word.cost - word.sold) }} />
    </span>
  );
}
