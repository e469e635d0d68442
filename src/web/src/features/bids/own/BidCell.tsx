import clsx from 'clsx';
import { useEffect, useEffectEvent, useRef, useState } from 'react';
import type { ItemReference } from '../../../api/client';
import { useCommand } from '../../../api/hooks';
import { goHome } from '../../../ui/home';

interface Props {
  id: string;
  item: ItemReference;
  version: number;
  label: string;
  /** The bid as it is typed; empty for none. */
  kept: string;
  placeholder: string;
}

interface Draft {
  text: string;
  /**
   * The version on which typing began: what a colleague changed since is told, not overwritten. Null when it began while
   * this cell's own change was on its way: then what stands there afterwards counts.
   */
  version: number | null;
  refused: boolean;
}

/** A bid that is changed in place: kept when it is left. What is refused stays as it was typed, until Esc takes it back. */
export function BidCell({ id, item, version, label, kept, placeholder }: Props) {
  const [draft, setDraft] = useState<Draft | null>(null);
  /** What is on its way; what is typed meanwhile waits for its turn. */
  const [sent, setSent] = useState<string | null>(null);
  const input = useRef<HTMLInputElement>(null);
  const run = useCommand();
  const keep = () => {
    if (!draft || draft.refused || sent !== null) return;
    const text = draft.text.trim();
    setDraft(null);
    if (text === kept) return;
    setSent(text);
    run.mutate(
      {
        type: 'setCells',
        cells: [{ item, field: 'maxCpc', text }],
        seen: [{ kind: item.kind, id: item.id, version: draft.version ?? version }],
      },
      {
        onError: () => setDraft((typed) => typed ?? { ...draft, refused: true }),
        onSettled: () => setSent(null),
      },
    );
  };
  const keepWaiting = useEffectEvent(() => {
    if (document.activeElement !== input.current) keep();
  });
  useEffect(() => {
    if (sent === null) keepWaiting();
  }, [sent]);
  return (
    <input
      ref={input}
      id={id}
      aria-label={label}
      aria-invalid={draft?.refused || undefined}
      className={clsx(
        'h-[24px] w-[58px] rounded-sm border bg-white px-1 text-right',
        draft?.refused ? 'border-brick' : 'border-line',
      )}
      value={draft?.text ?? sent ?? kept}
      placeholder={placeholder}
      tabIndex={-1}
      onChange={({ target }) =>
        // Whoever types on after a refusal has read it, and goes by what stands there now.
        setDraft((before) => ({
          text: target.value,
          version: before && !before.refused ? before.version : sent === null ? version : null,
          refused: false,
        }))
      }
      onFocus={(event) => event.currentTarget.select()}
      onBlur={keep}
      onKeyDown={(event) => {
        if (event.key === 'Escape') setDraft(null);
        if (event.key === 'Enter' || event.key === 'Escape') goHome();
        event.stopPropagation();
      }}
    />
  );
}
