import clsx from 'clsx';
import type { ClipboardEvent, KeyboardEvent } from 'react';
import { placedOf, writtenOf } from '../../../items/placedLine';
import type { TextRead } from '../../../items/useTexts';

interface Props {
  id: string;
  label: string;
  line: string;
  /** True when a line can be kept to a place. */
  placed: boolean;
  read: TextRead | undefined;
  over: boolean;
  refused: boolean;
  placeholder?: string;
  describedBy?: string;
  onType: (line: string) => void;
  onBlur: () => void;
  onKeys: (event: KeyboardEvent<HTMLInputElement>) => void;
  onPaste: (event: ClipboardEvent) => void;
  /** Inserted words are to be changed: which of them, and how they stand now. */
  onChip: (chip: string) => void;
}

const inserted = /(\{\{.*?\}\})/;

/** The text of a slot. Inserted words stand in it as chips, with what is written around them. */
export function SlotText(props: Props) {
  const { id, label, line, placed, read, over, refused, placeholder, describedBy } = props;
  const { text, place } = placed ? placedOf(line) : { text: line, place: null };
  const parts = text.split(inserted);
  const write = (next: string) => props.onType(placed ? writtenOf({ text: next, place }) : next);
  const put = (at: number, part: string) =>
    write(parts.map((each, other) => (other === at ? part : each)).join(''));
  const single = parts.length === 1;
  const box = clsx(
    'rounded-sm border bg-white focus-within:shadow-[0_0_0_2px_var(--color-tide)]',
    over ? 'border-brick' : refused ? 'border-ochre' : 'border-line-strong',
  );
  return (
    <span className={clsx('flex min-w-0 flex-1 flex-wrap items-center px-2 py-[3px]', box)}>
      {parts.map((part, at) =>
        at % 2 === 1 ? (
          <button
            key={at}
            type="button"
            onClick={() => props.onChip(part)}
            onKeyDown={(event) => {
              if (event.key !== 'Delete' && event.key !== 'Backspace') return;
              event.preventDefault();
              put(at, '');
              document.getElementById(id)?.focus();
            }}
            title="Change what is inserted; Delete takes it out"
            className="rounded-sm bg-tide-wash px-1.5 font-semibold whitespace-nowrap text-tide"
          >
            {read?.parts?.find((each) => each.text === part)?.chip ?? 'inserted words'}
          </button>
        ) : (
          <input
            key={at}
            id={at === 0 ? id : undefined}
            data-offset={parts.slice(0, at).join('').length}
            {...(at === 0 ? { 'data-slot': true } : {})}
            aria-label={at === 0 ? label : `${label}, after the inserted words`}
            aria-describedby={describedBy}
            aria-keyshortcuts="Alt+ArrowUp Alt+ArrowDown"
            aria-invalid={over ? true : undefined}
            value={part}
            placeholder={single ? placeholder : undefined}
            onChange={(event) => put(at, event.target.value)}
            onBlur={props.onBlur}
            onKeyDown={(event) => {
              const [from, to] = [event.currentTarget.selectionStart, event.currentTarget.selectionEnd];
              if (event.key === 'Backspace' && at > 0 && from === 0 && to === 0) {
                event.preventDefault();
                put(at - 1, '');
                document.getElementById(id)?.focus();
                return;
              }
              props.onKeys(event);
            }}
            onPaste={props.onPaste}
            // Around chips, a text takes as much room as it needs.
            style={single ? undefined : { width: `${Math.max(part.length, 0.6) + 0.6}ch` }}
            className={clsx(
              'border-0 bg-transparent p-0 outline-none',
              single ? 'w-full' : 'min-h-6 min-w-6',
            )}
          />
        ),
      )}
    </span>
  );
}
