import { useQuery } from '@tanstack/react-query';
import type { ItemState, MatchType } from '../../api/client';
import { answer, api } from '../../api/client';
import { useAccount } from '../../app/account';
import { matchNames } from '../../app/format';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { ConditionEditor } from './ConditionEditor';
import { inWords, type Condition } from './conditions';
import { isFiltered, plainLook, type Look } from './look';

const matchChoices: { value: MatchType | 'any'; label: string }[] = [
  { value: 'any', label: 'any match' },
  ...Object.entries(matchNames).map(([value, label]) => ({ value: value as MatchType, label })),
];
const stateChoices: { value: ItemState | 'any'; label: string }[] = [
  { value: 'any', label: 'any state' },
  { value: 'running', label: 'running' },
  { value: 'paused', label: 'paused' },
];
const periods = ['7', '14', '28', '90', '365'].map((days) => ({ value: days, label: `last ${days} days` }));

interface Props {
  /** Negatives have neither state nor figures. */
  onlyNegatives?: boolean;
  look: Look;
  onLook: (look: Look) => void;
  /** Only what one step made or changed. */
  step: string | null;
  onAllSteps: () => void;
}

export function useSheetFields() {
  const account = useAccount();
  return useQuery({
    queryKey: [account.id, 'sheetFields'],
    staleTime: Infinity,
    queryFn: () =>
      answer(
        api.GET('/api/accounts/{accountId}/sheet/fields', { params: { path: { accountId: account.id } } }),
      ),
  });
}

/** What the sheet lets through. */
export function FilterBar({ onlyNegatives, look, onLook, step, onAllSteps }: Props) {
  const fields = useSheetFields().data ?? [];
  const set = (part: Partial<Look>) => onLook({ ...look, ...part });
  const setCondition = (place: number, condition: Condition | null) =>
    set({
      conditions: condition
        ? look.conditions.map((each, number) => (number === place ? condition : each))
        : look.conditions.filter((_, number) => number !== place),
    });
  return (
    <div
      role="search"
      className="flex flex-wrap items-center gap-2 border-b border-line bg-paper px-3 py-1.5"
    >
      <input
        type="search"
        aria-label="Filter by text"
        placeholder="Contains…"
        value={look.text}
        onChange={(event) => set({ text: event.target.value })}
        className="w-40 rounded-sm border border-line-strong bg-white px-2 py-1"
      />
      <Choice
        label="Match type"
        value={look.match}
        options={matchChoices}
        onChange={(match) => set({ match })}
      />
      {!onlyNegatives && (
        <Choice
          label="State"
          value={look.state}
          options={stateChoices}
          onChange={(state) => set({ state })}
        />
      )}
      <Button pressed={look.changed} onClick={() => set({ changed: !look.changed })}>
        Changed
      </Button>
      <Button pressed={look.needs} onClick={() => set({ needs: !look.needs })}>
        Needs something
      </Button>
      {fields.length > 0 && (
        <ConditionEditor
          fields={fields}
          condition={null}
          onKeep={(condition) => set({ conditions: [...look.conditions, condition] })}
        >
          <Button>Condition…</Button>
        </ConditionEditor>
      )}
      {look.conditions.map((condition, place) => (
        <span
          key={place}
          className="inline-flex items-center rounded-sm border border-plum bg-plum-wash text-plum-deep"
        >
          <ConditionEditor fields={fields} condition={condition} onKeep={(next) => setCondition(place, next)}>
            <button type="button" className="px-2 py-[3px] font-semibold">
              {inWords(condition, fields)}
            </button>
          </ConditionEditor>
          <button
            type="button"
            aria-label={`Drop the condition: ${inWords(condition, fields)}`}
            className="px-1.5 py-[3px]"
            onClick={() => setCondition(place, null)}
          >
            ×
          </button>
        </span>
      ))}
      {step !== null && (
        <Button pressed onClick={onAllSteps}>
          {step} ×
        </Button>
      )}
      {(isFiltered(look) || step !== null) && (
        <Button
          tone="quiet"
          onClick={() => {
            onLook({ ...plainLook, columns: look.columns, figureDays: look.figureDays, sort: look.sort });
            onAllSteps();
          }}
        >
          Show all
        </Button>
      )}
      {!onlyNegatives && (
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
