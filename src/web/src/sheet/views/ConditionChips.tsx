import { Button } from '../../ui/Button';
import { ConditionEditor } from './ConditionEditor';
import { inWords, type Condition, type SheetField } from './conditions';

interface Props {
  fields: readonly SheetField[];
  conditions: readonly Condition[];
  onConditions: (conditions: Condition[]) => void;
}

/** The conditions of a filter, each to be changed or dropped, and one more. */
export function ConditionChips({ fields, conditions, onConditions }: Props) {
  const set = (place: number, condition: Condition | null) =>
    onConditions(
      condition
        ? conditions.map((each, number) => (number === place ? condition : each))
        : conditions.filter((_, number) => number !== place),
    );
  return (
    <>
      {fields.length > 0 && (
        <ConditionEditor
          fields={fields}
          condition={null}
          onKeep={(condition) => onConditions([...conditions, condition])}
        >
          <Button>Condition…</Button>
        </ConditionEditor>
      )}
      {conditions.map((condition, place) => (
        <span
          key={place}
          className="inline-flex items-center rounded-sm border border-plum bg-plum-wash text-plum-deep"
        >
          <ConditionEditor fields={fields} condition={condition} onKeep={(next) => set(place, next)}>
            <button type="button" className="px-2 py-[3px] font-semibold">
              {inWords(condition, fields)}
            </button>
          </ConditionEditor>
          <button
            type="button"
            aria-label={`Drop the condition: ${inWords(condition, fields)}`}
            className="px-1.5 py-[3px]"
            onClick={() => set(place, null)}
          >
            ×
          </button>
        </span>
      ))}
    </>
  );
}
