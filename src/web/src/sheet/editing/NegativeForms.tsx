import { answer, api, type Schemas } from '../../api/client';
import { useAccount } from '../../api/account';
import { usePreview } from '../../api/usePreview';
import { plural } from '../../ui/format';
import { Button } from '../../ui/Button';

const said: Record<Schemas['NearForm'], string> = {
  singular: 'singular',
  plural: 'plural',
  misspelling: 'misspelling',
};

const shown = 12;
const typingRests = 220;

/**
 * A negative blocks just its own words: the singular or plural of them, and the misspellings that people really typed, are
 * offered beside it.
 */
export function NegativeForms({ lines, onLines }: { lines: string; onLines: (lines: string) => void }) {
  const account = useAccount();
  const forms = usePreview(
    lines.trim() === '' ? null : lines,
    (signal) =>
      answer(
        api.POST('/api/accounts/{accountId}/negatives/forms', {
          params: { path: { accountId: account.id } },
          body: { lines },
          signal,
        }),
      ),
    typingRests,
  );
  const offered = forms.data ?? [];
  if (offered.length === 0) return null;
  const add = (texts: readonly string[]) => onLines([lines.trimEnd(), ...texts].join('\n'));
  return (
    <section aria-label="Near words" className="rounded-sm border border-line px-2.5 py-1.5">
      <div className="flex flex-wrap items-center justify-between gap-2">
        <h3 className="font-body text-[12px] font-semibold text-ink-2">
          Negatives do not stretch. Near words that they would let through:
        </h3>
        <Button tone="quiet" onClick={() => add(offered.map((each) => each.text))}>
          Add {plural(offered.length, 'near word')}
        </Button>
      </div>
      <ul className="mt-1 flex flex-wrap gap-1.5">
        {offered.slice(0, shown).map((each) => (
          <li key={each.text}>
            <button
              type="button"
              className="relative rounded-sm border border-line-strong bg-sheet px-2 py-px hover:bg-plum-wash"
              onClick={() => add([each.text])}
            >
              <span className="sr-only">Add</span>
              <span aria-hidden>+</span> {each.text}{' '}
              <span className="text-ink-3">
                {said[each.form]}
                {each.clicks != null && `, ${plural(each.clicks, 'click')} in 90 days`}
              </span>
            </button>
          </li>
        ))}
      </ul>
      {offered.length > shown && <p className="text-ink-3">and {offered.length - shown} more</p>}
    </section>
  );
}
