import { Choice } from '../../ui/Choice';
import { TextField } from '../../ui/Field';
import { comparisons, presets } from './period';
import type { ResultsAddress } from './useResultsAddress';

/** Which days, and which they are compared with. */
export function DaysSide({ address, newest }: { address: ResultsAddress; newest: string | null }) {
  const { preset, days, against, set } = address;
  const field = (
    label: string,
    name: 'first' | 'last' | 'beforeFirst' | 'beforeLast',
    value: string,
    problem?: string,
  ) => (
    <TextField
      label={label}
      type="date"
      value={value}
      problem={problem}
      max={newest ?? undefined}
      onChange={(event) => event.target.value && set({ [name]: event.target.value })}
    />
  );
  return (
    <>
      <div className="flex flex-wrap items-center gap-1.5">
        <Choice label="Period" value={preset} options={presets} onChange={address.choosePreset} />
        <span className="text-ink-3">against</span>
        <Choice
          label="Compare with"
          value={against}
          options={comparisons}
          onChange={address.chooseComparison}
        />
      </div>
      {preset === 'own' && days && (
        <div className="grid grid-cols-2 gap-2">
          {field('First day', 'first', days.first)}
          {field('Last day', 'last', days.last)}
        </div>
      )}
      {against === 'chosen' && (
        <div className="grid grid-cols-2 gap-2">
          {field('Against, from', 'beforeFirst', address.beforeFirst)}
          {field('to', 'beforeLast', address.beforeLast)}
        </div>
      )}
    </>
  );
}
