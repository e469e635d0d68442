import { useRef, useState, type ClipboardEvent, type KeyboardEvent } from 'react';
import clsx from 'clsx';
import { GripVertical, MoreHorizontal } from 'lucide-react';
import { useUndo } from '../../../api/hooks';
import type { ItemField } from '../../../api/kinds';
import { placedOf, writtenOf } from '../../../items/placedLine';
import { lengthOf } from '../../../items/values';
import { Button } from '../../../ui/Button';
import { keepsKeyboard } from '../../../ui/home';
import { Menu, type MenuEntry } from '../../../ui/Menu';
import { InsertDialog } from './InsertDialog';
import { filled, moved, putIn, rowsOf, said } from './lines';
import { SlotText } from './SlotText';
import { inserts, type TextRead } from '../../../items/useTexts';

interface Props {
  field: ItemField;
  lines: readonly string[];
  read: readonly TextRead[];
  problem: string | null;
  onType: (lines: string[]) => void;
  /** The lines are to be kept. */
  onKeep: (lines: string[]) => void;
  /** What was typed is left, and the lines are as they were. */
  onLeave: () => void;
}

/** One slot a line: its text, how long it is, and what reviewers would say of it. */
export function Slots({ field, lines, read, problem, onType, onKeep: keep, onLeave }: Props) {
  const { undo, redo } = useUndo();
  // A slot that is left is kept only when something was typed: what was moved or pasted is kept already.
  const unkept = useRef(false);
  const onKeep = (next: string[]) => {
    unkept.current = false;
    keep(next);
  };
  const [dragged, setDragged] = useState<number | null>(null);
  const [inserting, setInserting] = useState<{ slot: number; chip: string | null; at?: number } | null>(null);
  const longest = field.limits.length ?? Infinity;
  const most = field.limits.most ?? lines.length + 1;
  // One free slot more than is written, so that there is always somewhere to go on; the rest would only take room.
  const filledTo = said(lines).length;
  const shown = Array.from(
    { length: Math.max(Math.min(most, Math.max(field.limits.fewest ?? 1, filledTo + 1)), lines.length) },
    (_, place) => lines[place] ?? '',
  );
  const part = field.partName ?? field.lowLabel;
  const name = part.charAt(0).toUpperCase() + part.slice(1);
  const given = shown.filter((line) => line.trim() !== '').length;

  const focus = (place: number) => document.getElementById(`${field.name}-${place}`)?.focus();
  /** Slots follow one another through all the fields of the ad. */
  const step = (from: HTMLElement, by: number) => {
    const all = [...document.querySelectorAll<HTMLElement>('[data-slot]')];
    all[all.indexOf(from) + by]?.focus();
  };
  const put = (slot: number, line: string) => shown.map((each, other) => (other === slot ? line : each));
  const keepTo = (slot: number, place: number | null) =>
    onKeep(put(slot, writtenOf({ ...placedOf(shown[slot] ?? ''), place })));
  const insert = (slot: number, chip: string | null, written: string, at?: number) => {
    const line = shown[slot] ?? '';
    const { text, place } = field.places ? placedOf(line) : { text: line, place: null };
    const next = chip ? text.replace(chip, () => written) : putIn(text, at ?? text.length, written);
    onKeep(put(slot, writtenOf({ text: next, place })));
  };
  const choices = (slot: number, line: string): MenuEntry[] => [
    ...(field.insertsWords
      ? [{ label: 'Insert words… (Alt I)', onSelect: () => setInserting({ slot, chip: null }) }]
      : []),
    ...(field.places
      ? [
          ...Array.from({ length: field.places }, (_, at) => ({
            label: `Keep to place ${at + 1} (Alt ${at + 1})`,
            disabled: line.trim() === '' || placedOf(line).place === at + 1,
            onSelect: () => keepTo(slot, at + 1),
          })),
          {
            label: 'Any place (Alt 0)',
            disabled: placedOf(line).place === null,
            onSelect: () => keepTo(slot, null),
          },
        ]
      : []),
  ];
  const keys = (event: KeyboardEvent<HTMLInputElement>, place: number) => {
    if (event.altKey && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) {
      event.preventDefault();
      const to = place + (event.key === 'ArrowUp' ? -1 : 1);
      const next = moved(shown, place, to);
      if (to < 0 || to >= shown.length) return;
      onKeep(next);
      focus(to);
    } else if (event.altKey && field.places && /^[0-9]$/.test(event.key)) {
      const to = Number(event.key);
      if (to > field.places) return;
      event.preventDefault();
      keepTo(place, to === 0 ? null : to);
    } else if (event.altKey && event.key.toLowerCase() === 'i' && field.insertsWords) {
      event.preventDefault();
      const { dataset, selectionStart } = event.currentTarget;
      const at = Number(dataset.offset ?? 0) + (selectionStart ?? 0);
      setInserting({ slot: place, chip: null, at });
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
        const told = read.find((each) => each.field === field.name && each.part === place + 1);
        const pinned = field.places ? placedOf(line).place : null;
        const hasInserted = inserts(line);
        // Of inserted words the server says how long they are at least; plain text is counted as it is typed.
        const length = hasInserted
          ? (told?.length ?? 0)
          : lengthOf(field.places ? placedOf(line).text : line, field.limits.wideCounts);
        const why = told && (told.problem !== null || told.reasons.length > 0) ? told : null;
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
              <span {...keepsKeyboard} className="flex min-w-0 items-center gap-1">
                <SlotText
                  id={`${field.name}-${place}`}
                  label={`${name} ${place + 1}${pinned ? `, place ${pinned} only` : ''}`}
                  line={line}
                  placed={field.places !== null}
                  read={told}
                  over={length > longest || (told?.problem ?? null) !== null}
                  refused={why !== null}
                  placeholder={place < (field.limits.fewest ?? 0) ? field.example : undefined}
                  describedBy={why ? `${field.name}-${place}-told` : undefined}
                  onType={(next) => {
                    unkept.current = true;
                    onType(put(place, next));
                  }}
                  onBlur={() => unkept.current && onKeep(shown)}
                  onKeys={(event) => keys(event, place)}
                  onPaste={(event) => paste(event, place)}
                  onChip={(chip) => setInserting({ slot: place, chip })}
                />
                {pinned && (
                  <span className="text-[12px] whitespace-nowrap text-ink-2">place {pinned} only</span>
                )}
                {(field.insertsWords || field.places) && (
                  <Menu
                    trigger={
                      <button
                        type="button"
                        tabIndex={-1}
                        aria-label={`More for ${part} ${place + 1}`}
                        className="rounded-sm p-0.5 text-ink-3 hover:bg-sunk"
                      >
                        <MoreHorizontal aria-hidden size={15} />
                      </button>
                    }
                    entries={choices(place, line)}
                  />
                )}
              </span>
              <Meter length={length} longest={longest} />
            </div>
            {why && (
              <p
                id={`${field.name}-${place}-told`}
                className={clsx('mt-0.5 ml-[42px] text-[12.5px]', why.problem ? 'text-brick' : 'text-ochre')}
              >
                {why.problem ? `■ ${why.problem}` : `◆ ${why.reasons.join(' ')}`}{' '}
                {why.repair && (
                  <Button
                    tone="quiet"
                    className="!px-1 !py-0 underline"
                    onClick={() => onKeep(put(place, writtenOf({ text: why.repair ?? line, place: pinned })))}
                  >
                    Make it “{why.repair}”
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
      {inserting && (
        <InsertDialog
          insertion={
            read
              .find((each) => each.field === field.name && each.part === inserting.slot + 1)
              ?.parts?.find((each) => each.text === inserting.chip)?.inserts ?? null
          }
          onInsert={(written) => insert(inserting.slot, inserting.chip, written, inserting.at)}
          onClose={() => setInserting(null)}
        />
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
