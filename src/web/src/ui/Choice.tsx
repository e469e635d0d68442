import clsx from 'clsx';
import { Check, ChevronDown } from 'lucide-react';
import { Select } from 'radix-ui';
import { useRef } from 'react';
import { goHome, hasHome } from './home';

export interface Option<T extends string> {
  value: T;
  label: string;
}

interface Props<T extends string> {
  label: string;
  value: T;
  options: readonly Option<T>[];
  onChange: (value: T) => void;
  className?: string;
  disabled?: boolean;
  /** A dialog that it stands in begins here. */
  isFirst?: boolean;
}

/** One of several values, by mouse, arrows or first letters. */
export function Choice<T extends string>({
  label,
  value,
  options,
  onChange,
  className,
  disabled,
  isFirst,
}: Props<T>) {
  const trigger = useRef<HTMLButtonElement>(null);
  return (
    <Select.Root value={value} onValueChange={(next) => onChange(next as T)} disabled={disabled}>
      <Select.Trigger
        ref={trigger}
        data-first={isFirst || undefined}
        aria-label={label}
        className={clsx(
          'inline-flex items-center justify-between gap-1.5 rounded-sm border border-line-strong bg-sheet px-2.5 py-1 font-semibold whitespace-nowrap',
          className,
        )}
      >
        <Select.Value />
        <Select.Icon>
          <ChevronDown size={13} aria-hidden />
        </Select.Icon>
      </Select.Trigger>
      <Select.Portal>
        <Select.Content
          position="popper"
          sideOffset={3}
          onCloseAutoFocus={(event) => {
            if (!trigger.current?.closest('[data-leads-home]') || !hasHome()) return;
            event.preventDefault();
            goHome();
          }}
          className="z-50 max-h-80 overflow-auto rounded-lg border border-line-strong bg-sheet p-1 shadow-lg"
        >
          <Select.Viewport>
            {options.map((option) => (
              <Select.Item
                key={option.value}
                value={option.value}
                className="flex cursor-default items-center gap-2 rounded-sm py-1 pr-6 pl-2 outline-none data-[highlighted]:bg-plum-wash"
              >
                <span className="w-3.5">
                  <Select.ItemIndicator>
                    <Check size={13} aria-hidden />
                  </Select.ItemIndicator>
                </span>
                <Select.ItemText>{option.label}</Select.ItemText>
              </Select.Item>
            ))}
          </Select.Viewport>
        </Select.Content>
      </Select.Portal>
    </Select.Root>
  );
}
