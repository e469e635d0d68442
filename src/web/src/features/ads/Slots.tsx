import { useRef, useState, type ClipboardEvent, type KeyboardEvent } from 'react';
import clsx from 'clsx';
import { GripVertical } from 'lucide-react';
import type { Schemas } from '../../api/client';
import { useUndo } from '../../api/hooks';
import type { ItemField } from '../../api/kinds';
import { lengthOf } from '../../items/values';
import { Button } from '../../ui/Button';
import { filled, moved, rowsOf } from './lines';

interface Props {
  field: ItemField;
  lines: readonly string[];
  refused: readonly Schemas['TextRefused'][];
  problem: string | null;
  onType: (lines: string[]) => void;
  /** The lines are to be kept. */
  onKeep: (lines: string[]) => void;
  /** What was typed is left, and the lines are as they were. */
  onLeave: () => void;
}

/** One slot a line: its text, how long it is, and what reviewers would say of it. */
export function Slots({ field, lines, refused, problem, onType, onKeep: keep, onLeave }: Props) {
  const { undo, redo } = useUndo();
  // A slot that is left is kept only when something was typed: what was moved or pasted is kept already.
  const unkept = useRef(false);
  const onKeep = (next: string[]) => {
    unkept.current = false;
    keep(next);
  };
  const [dragged, setDragged] = useState<number | null>(null);
  const longest = field.limits.length ?? Infinity;
  const most = field.limits.most ?? lines.length + 1;
  const shown = Array.from({ length: Math.max(most, lines.length) }, (_, place) => lines[place] ?? '');
  const part = field.partName ?? field.lowLabel;
  const name = part.charAt(0).toUpperCase() + part.slice(1);
  const given = shown.filter((line) => line.trim() !== '').length;

  const focus = (place: number) => document.getElementById(`${field.name}-${place}`)?.focus();
  /** Slots follow one another through all the fields of the ad. */
  const step = (from: HTMLElement, by: number) => {
    const all = [...document.querySelectorAll<HTMLElement>('[data-slot]')];
    all[all.indexOf(from) + by]?.focus();
  };
  const keys = (event: KeyboardEvent<HTMLInputElement>, place: number) => {
    if (event.altKey && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) {
      event.preventDefault();
      const to = place + (event.key === 'ArrowUp' ? -1 : 1);
      const next = moved(shown, place, to);
      if (to < 0 || to >= shown.length) return;
      onKeep(next);
      focus(to);
    } else if (event.key === 'Enter' || event.key === 'ArrowDown' || event.key === 'ArrowUp') {
      event.preventDefault();
      // Leaving a slot keeps it; at the last one there is nowhere to go, and Enter keeps it all the same.
      step(event.currentTarget, event.key === 'ArrowUp' ? -1 : 1);
      if (event.key === 'Enter' && unkept.current) onKeep(shown);
    } else if (event.key === 'Escape' && unkept.current) {
      event.preventDefault();
      event.stopPropagation();
      unkept.current = false;
      onLeave();
    } else if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z' && !unkept.current) {
      // Nothing is being typed: the step before is meant, not a letter.
      event.preventDefault();
      void (event.shiftKey ? redo() : undo());
    }
  };
  const paste = (event: ClipboardEvent, place: number) => {
    const text = event.clipboardData.getData('text/plain');
    if (rowsOf(text).length < 2) return;
    event.preventDefault();
    onKeep(filled(shown, place, text, most));
  };

  return (
    <section
      aria-labelledby={`${field.name}-head`}
      className="rounded-lg border border-line bg-sheet px-3 pt-2 pb-3"
    >
      <div className="mb-1.5 flex items-baseline justify-between gap-3">
        <h3 id={`${field.name}-head`} className="text-[15px]">
          {name}s
        </h3>
        <span className="text-[12.5px] text-ink-3">
          {given} of {most}
          {field.limits.fewest ? ` · ${field.limits.fewest} at least` : ''}
          {longest < Infinity ? ` · ${longest} characters each` : ''}
        </span>
      </div>
      {shown.map((line, place) => {
        const told = refused.find((each) => each.field === field.name && each.part === place + 1);
        return (
          <div
            key={place}
            onDragOver={(event) => dragged !== null && event.preventDefault()}
            onDrop={() => {
              if (dragged !== null && dragged !== place) onKeep(moved(shown, dragged, place));
              setDragged(null);
            }}
            className={clsx('py-[3px]', dragged === place && 'opacity-50')}
          >
            <div className="grid grid-cols-[34px_minmax(0,1fr)_84px_64px] items-center gap-2">
              <span
                draggable={line !== ''}
                onDragStart={(event) => {
                  event.dataTransfer.effectAllowed = 'move';
                  setDragged(place);
                }}
                onDragEnd={() => setDragged(null)}
                title="Drag to another place, or Alt with an arrow"
                className={clsx('flex items-center text-ink-3', line !== '' && 'cursor-grab')}
              >
                <GripVertical aria-hidden size={13} className={line === '' ? 'opacity-0' : ''} />
                {place + 1}
              </span>
              <input
                id={`${field.name}-${place}`}
                data-slot
                aria-label={`${name} ${place + 1}`}
                aria-describedby={told ? `${field.name}-${place}-told` : undefined}
                aria-keyshortcuts="Alt+ArrowUp Alt+ArrowDown"
                aria-invalid={lengthOf(line) > longest ? true : undefined}
                value={line}
                placeholder={place < (field.limits.fewest ?? 0) ? field.example : undefined}
                onChange={(event) => {
                  unkept.current = true;
                  onType(shown.map((each, other) => (other === place ? event.target.value : each)));
                }}
                onBlur={() => unkept.current && onKeep(shown)}
                onKeyDown={(event) => keys(event, place)}
                onPaste={(event) => paste(event, place)}
                className={clsx(
                  'w-full rounded-sm border bg-white px-2 py-[3px] outline-none focus:shadow-[0_0_0_2px_var(--color-tide)]',
                  lengthOf(line) > longest ? 'border-brick' : told ? 'border-ochre' : 'border-line-strong',
                )}
              />
              <Meter length={lengthOf(line)} longest={longest} />
            </div>
            {told && (
              <p id={`${field.name}-${place}-told`} className="mt-0.5 ml-[42px] text-[12.5px] text-ochre">
                ◆ {told.reasons.join(' ')}{' '}
                {told.repair && (
                  <Button
                    tone="quiet"
                    className="!px-1 !py-0 underline"
                    onClick={() =>
                      onKeep(shown.map((each, other) => (other === place ? (told.repair ?? each) : each)))
                    }
                  >
                    Make it “{told.repair}”
                  </Button>
                )}
              </p>
            )}
          </div>
        );
      })}
      {problem && (
        <p role="alert" className="mt-1 text-brick">
          {problem}
        </p>
      )}
    </section>
  );
}

/** How much of the room a text takes; what is too long says so, not by colour alone. */
function Meter({ length, longest }: { length: number; longest: number }) {
  if (longest === Infinity) return <span className="col-span-2" />;
  const over = length > longest;
  return (
    <>
      <span aria-hidden className="h-[5px] rounded-full bg-sunk">
        <span
          className={clsx('block h-full rounded-full', over ? 'bg-brick' : 'bg-moss')}
          style={{ width: `${Math.min(1, length / longest) * 100}%` }}
        />
      </span>
      <span
        className={clsx('text-right whitespace-nowrap', over ? 'font-semibold text-brick' : 'text-ink-3')}
      >
        {over && '■ '}
        {length} / {longest}
      </span>
    </>
  );
}
