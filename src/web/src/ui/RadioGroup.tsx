import { useId } from 'react';

interface Props<T extends string> {
  label: string;
  value: T;
  options: readonly { value: T; label: string; hint?: string }[];
  onChange: (value: T) => void;
  /** Takes the focus when it comes to be. */
  first?: boolean;
}

/** One of a few, all in sight: for choices that need a word each. */
export function RadioGroup<T extends string>({ label, value, options, onChange, first }: Props<T>) {
  const name = useId();
  return (
    <fieldset>
      <legend className="mb-1 text-[12.5px] font-semibold text-ink-2">{label}</legend>
      <div>
        {options.map((option) => (
          <label key={option.value} className="flex min-h-[26px] items-center gap-2">
            <input
              type="radio"
              name={name}
              value={option.value}
              checked={option.value === value}
              autoFocus={first && option.value === value}
              className="size-4 accent-plum"
              onChange={() => onChange(option.value)}
            />
            <span>
              <span className={option.value === value ? 'font-semibold' : undefined}>{option.label}</span>
              {option.hint && <span className="text-ink-3"> · {option.hint}</span>}
            </span>
          </label>
        ))}
      </div>
    </fieldset>
  );
}
