import type { ComponentProps } from 'react';

interface Props extends Pick<ComponentProps<'input'>, 'id' | 'tabIndex' | 'onFocus' | 'onKeyDown'> {
  /** What is ticked, in words. */
  label: string;
  checked: boolean;
  onChange: (checked: boolean) => void;
  disabled?: boolean;
}

/** A box in a row of a table. */
export function Tick({ label, checked, onChange, disabled, ...more }: Props) {
  return (
    <input
      {...more}
      type="checkbox"
      className="size-3.5 accent-plum"
      aria-label={label}
      checked={checked}
      disabled={disabled}
      onChange={(event) => onChange(event.target.checked)}
    />
  );
}
