import { useEffect, useRef, useState, type KeyboardEvent } from 'react';
import { useKinds } from '../../api/kinds';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { ConditionChips } from './ConditionChips';
import { useSheetFields } from './useSheetFields';
import { kindsIn } from './columns';
import { isFiltered, type Look } from './look';
import { goHome, leadsHome } from '../../ui/home';
import type { SheetView } from '../sheetQuery';

const periods = ['7', '14', '28', '90', '365'].map((days) => ({ value: days, label: `last ${days} days` }));

interface Props {
  view: SheetView;
  look: Look;
  /** Changes what is shown; in place where it is one more letter of the same. */
  onLook: (look: Look, inPlace?: boolean) => void;
  /** Only what one step made or changed. */
  step: string | null;
  onAllSteps: () => void;
  /** Drops the filter and the step. */
  onShowAll: () => void;
}

/** What the sheet lets through. */
export function FilterBar({ view, look, onLook, step, onAllSteps, onShowAll }: Props) {
  const kinds = useKinds();
  const shown = kindsIn(view, kinds);
  const has = (name: string) => shown.some((kind) => kind.fields.some((field) => field.name === name));
  const choices = (name: string) =>
    kinds.choices(name).map(({ key, name: label }) => ({ value: key, label }));
  const fields = useSheetFields().data ?? [];
  const set = (part: Partial<Look>) => onLook({ ...look, ...part });
  /** What is switched by a button is seen in the sheet. */
  const turn = (part: Partial<Look>) => {
    set(part);
    goHome();
  };
  return (
    <div
      role="search"
      {...leadsHome}
      className="flex flex-wrap items-center gap-2 border-b border-line bg-paper px-3 py-1.5"
    >
      <TextFilter text={look.text} onText={(text) => onLook({ ...look, text }, true)} />
      {has('match') && (
        <Choice
          label="Match type"
          value={look.match}
          options={[{ value: 'any', label: 'any match' }, ...choices('match')]}
          onChange={(match) => set({ match: match as Look['match'] })}
        />
      )}
      {has('state') && (
        <Choice
          label="State"
          value={look.state}
          options={[{ value: 'any', label: 'any state' }, ...choices('state')]}
          onChange={(state) => set({ state: state as Look['state'] })}
        />
      )}
      <Button pressed={look.changed} onClick={() => turn({ changed: !look.changed })}>
        Changed
      </Button>
      <Button pressed={look.needs} onClick={() => turn({ needs: !look.needs })}>
        Needs something
      </Button>
      <Button pressed={look.removed} onClick={() => turn({ removed: !look.removed })}>
        Removed
      </Button>
      <ConditionChips
        fields={fields}
        conditions={look.conditions}
        onConditions={(conditions) => set({ conditions })}
      />
      {step !== null && (
        <Button pressed onClick={onAllSteps}>
          {step} ×
        </Button>
      )}
      {(isFiltered(look) || step !== null) && (
        <Button
          tone="quiet"
          onClick={() => {
            onShowAll();
            goHome();
          }}
        >
          Show all
        </Button>
      )}
      {shown.some((kind) => kind.hasFigures) && (
        <div className="ml-auto">
          <Choice
            label="Days of the figures"
            value={String(look.figureDays)}
            options={periods}
            onChange={(days) => set({ figureDays: Number(days) })}
          />
        </div>
      )}
    </div>
  );
}

const typingRests = 180;

/** A part of the text, taken over when typing rests; ↓ or Enter goes into the sheet. */
function TextFilter({ text, onText }: { text: string; onText: (text: string) => void }) {
  const [typed, setTyped] = useState<string | null>(null);
  const latest = useRef(onText);
  useEffect(() => {
    latest.current = onText;
  });
  useEffect(() => {
    if (typed === null) return;
    const timer = window.setTimeout(() => {
      latest.current(typed);
      setTyped(null);
    }, typingRests);
    return () => window.clearTimeout(timer);
  }, [typed]);
  const into = (event: KeyboardEvent) => {
    if (event.key !== 'ArrowDown' && event.key !== 'Enter') return;
    event.preventDefault();
    if (typed !== null) onText(typed);
    setTyped(null);
    goHome();
  };
  return (
    <input
      type="search"
      data-filter
      aria-label="Filter by text"
      placeholder="Contains…"
      value={typed ?? text}
      onChange={(event) => setTyped(event.target.value)}
      onKeyDown={into}
      className="w-40 rounded-sm border border-line-strong bg-white px-2 py-1"
    />
  );
}
