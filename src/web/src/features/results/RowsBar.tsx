import type { Schemas } from '../../api/client';
import { Choice } from '../../ui/Choice';
import type { Breakdown } from './useBreakdown';

const nothing = 'nothing';
const any = 'any';

const lower = (name: string) => name.charAt(0).toLowerCase() + name.slice(1);

interface Props<T extends string> {
  value: T | Breakdown;
  levels: readonly { value: T; label: string }[];
  choices: readonly Schemas['BreakdownChoice'][];
  /** What rows are told apart by; none where they cannot be broken down. */
  by: Schemas['BreakdownChoice'] | undefined;
  crossed: Breakdown | undefined;
  onRows: (rows: T | Breakdown) => void;
  onCrossed: (by: Breakdown | null) => void;
}

/** What the rows are, and what each is broken down by. */
export function RowsBar<T extends string>({
  value,
  levels,
  choices,
  by,
  crossed,
  onRows,
  onCrossed,
}: Props<T>) {
  const known = new Set<string>(levels.map((each) => each.value));
  return (
    <>
      <Choice
        label="Rows"
        value={value}
        options={[
          ...levels,
          ...choices
            .filter((each) => !known.has(each.by))
            .map((each) => ({ value: each.by, label: `By ${lower(each.name)}` })),
        ]}
        onChange={onRows}
      />
      {by && (
        <Choice
          label="Broken down by"
          value={crossed ?? nothing}
          options={[
            { value: nothing, label: 'Not broken down' },
            ...by.crosses.map((each) => ({
              value: each,
              label: `Broken down by ${lower(choices.find((choice) => choice.by === each)?.name ?? each)}`,
            })),
          ]}
          onChange={(next) => onCrossed(next === nothing ? null : next)}
        />
      )}
    </>
  );
}

/** Keeps to the campaigns that do one thing. */
export function ConditionChoice({
  value,
  counts,
  onChange,
}: {
  value: Schemas['CampaignCondition'] | undefined;
  counts: readonly Schemas['CountedCondition'][];
  onChange: (condition: Schemas['CampaignCondition'] | null) => void;
}) {
  return (
    <Choice
      label="What they do"
      value={value ?? any}
      options={[
        { value: any, label: 'All campaigns' },
        ...counts.map((each) => ({ value: each.condition, label: `${each.count} ${each.name}` })),
      ]}
      onChange={(next) => onChange(next === any ? null : next)}
    />
  );
}
