import clsx from 'clsx';
import { TextField } from '../../../ui/Field';
import { isHome } from '../../../ui/home';
import type { Strategy, StrategyWish } from '../useBids';

const labels: Record<string, { label: string; example: string }> = {
  targetCpa: { label: 'Target CPA', example: '12.00' },
  targetRoas: { label: 'Target ROAS', example: '400%' },
  lowestBid: { label: 'Lowest bid', example: 'no limit' },
  highestBid: { label: 'Highest bid', example: 'no limit' },
};

interface Props {
  known: Strategy;
  wish: StrategyWish;
  onWish: (wish: StrategyWish) => void;
  /** Enter in a setting. */
  onEnter: () => void;
}

/** The strategies, one chosen, with the settings that it has. */
export function StrategyChoice({ known, wish, onWish, onEnter }: Props) {
  const chosen = known.strategies.find((each) => each.key === wish.strategy);
  return (
    <div className="p-3 pt-2">
      <fieldset>
        <legend className="sr-only">Strategy</legend>
        <div className="grid gap-x-3 min-[900px]:grid-cols-2">
          {known.strategies.map((each) => (
            <label
              key={each.key}
              className={clsx(
                'flex min-h-[30px] items-center gap-2 rounded-sm px-2',
                each.key === wish.strategy && 'bg-plum-wash',
              )}
            >
              <input
                type="radio"
                name="strategy"
                value={each.key}
                checked={each.key === wish.strategy}
                {...(each.key === wish.strategy ? isHome : {})}
                className="size-4 shrink-0 accent-plum"
                onChange={() => onWish({ ...wish, strategy: each.key })}
              />
              <span>
                <span className={each.key === wish.strategy ? 'font-semibold' : undefined}>{each.name}</span>
                <span className="text-ink-3"> · {each.says}</span>
                {each.key === known.chosen && <span className="text-ink-3"> (now)</span>}
              </span>
            </label>
          ))}
        </div>
      </fieldset>
      {chosen && chosen.fields.length > 0 && (
        <form
          className="mt-2 flex flex-wrap gap-2 pl-2"
          onSubmit={(event) => {
            event.preventDefault();
            onEnter();
          }}
        >
          {chosen.fields.map((name) => (
            <TextField
              key={name}
              label={labels[name]?.label ?? name}
              className="w-[128px]"
              value={wish[name as keyof StrategyWish]}
              placeholder={labels[name]?.example}
              problem={known.problems.find((problem) => problem.field === name)?.text}
              onChange={(event) => onWish({ ...wish, [name]: event.target.value })}
            />
          ))}
          {/* Enter in one of several fields needs a button to go by. */}
          <button type="submit" hidden aria-hidden tabIndex={-1} />
        </form>
      )}
      <ul aria-label="What speaks for and against it" className="mt-2 space-y-1 pl-2" aria-live="polite">
        {known.points.map((point) => (
          <li key={point.text} className="flex gap-1.5">
            <Mark standing={point.standing} />
            <span>{point.text}</span>
          </li>
        ))}
      </ul>
    </div>
  );
}

const marks = {
  ready: { sign: '✓', tone: 'text-moss', word: 'speaks for it' },
  careful: { sign: '◆', tone: 'text-ochre', word: 'with care' },
  notReady: { sign: '■', tone: 'text-brick', word: 'speaks against it' },
} as const;

function Mark({ standing }: { standing: keyof typeof marks }) {
  const mark = marks[standing];
  return (
    <span role="img" aria-label={mark.word} className={clsx('w-[1em] shrink-0 text-center', mark.tone)}>
      {mark.sign}
    </span>
  );
}
