import clsx from 'clsx';
import { useId, type ComponentProps, type ReactNode } from 'react';

interface FieldProps {
  label: ReactNode;
  problem?: string | null;
  hint?: ReactNode;
  hideLabel?: boolean;
  className?: string;
}

type InputProps = FieldProps &
  Omit<ComponentProps<'input'>, 'id'> & {
    before?: string;
    /** By which it is found from elsewhere on the page. */
    fieldId?: string;
  };

const box = 'w-full rounded-sm border bg-white px-2 py-1 text-ink disabled:bg-sunk disabled:text-ink-3';

/** A line of text with its label, a hint, and what is wrong with it. */
export function TextField({
  label,
  problem,
  hint,
  hideLabel,
  className,
  before,
  fieldId,
  ...input
}: InputProps) {
  const made = useId();
  const id = fieldId ?? made;
  return (
    <div className={className}>
      <FieldLabel id={id} hidden={hideLabel}>
        {label}
      </FieldLabel>
      <div className="relative">
        {before && <span className="absolute top-1/2 left-2 -translate-y-1/2 text-ink-3">{before}</span>}
        <input
          {...input}
          id={id}
          aria-invalid={problem ? true : undefined}
          aria-describedby={problem || hint ? `${id}-note` : undefined}
          className={clsx(box, problem ? 'border-brick' : 'border-line-strong')}
          style={before ? { paddingLeft: 8 + before.length * 9 } : input.style}
        />
      </div>
      <FieldNote id={id} problem={problem} hint={hint} />
    </div>
  );
}

type AreaProps = FieldProps & Omit<ComponentProps<'textarea'>, 'id'>;

export function TextArea({ label, problem, hint, hideLabel, className, ...area }: AreaProps) {
  const id = useId();
  return (
    <div className={className}>
      <FieldLabel id={id} hidden={hideLabel}>
        {label}
      </FieldLabel>
      <textarea
        {...area}
        id={id}
        aria-invalid={problem ? true : undefined}
        aria-describedby={problem || hint ? `${id}-note` : undefined}
        className={clsx(box, problem ? 'border-brick' : 'border-line-strong')}
      />
      <FieldNote id={id} problem={problem} hint={hint} />
    </div>
  );
}

function FieldLabel({ id, hidden, children }: { id: string; hidden?: boolean; children: ReactNode }) {
  return (
    <label htmlFor={id} className={hidden ? 'sr-only' : 'mb-0.5 block text-[12px] font-semibold text-ink-2'}>
      {children}
    </label>
  );
}

function FieldNote({ id, problem, hint }: { id: string; problem?: string | null; hint?: ReactNode }) {
  if (!problem && !hint) return null;
  return (
    <div id={`${id}-note`} className={clsx('mt-0.5 text-[12px]', problem ? 'text-brick' : 'text-ink-3')}>
      {problem ?? hint}
    </div>
  );
}

interface CheckFieldProps {
  label: ReactNode;
  checked: boolean;
  onChange: (checked: boolean) => void;
  disabled?: boolean;
}

export function CheckField({ label, checked, onChange, disabled }: CheckFieldProps) {
  return (
    <label className="flex min-h-6 items-center gap-1.5">
      <input
        type="checkbox"
        className="size-3.5 accent-plum"
        checked={checked}
        disabled={disabled}
        onChange={(event) => onChange(event.target.checked)}
      />
      {label}
    </label>
  );
}
