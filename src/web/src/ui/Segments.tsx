import clsx from 'clsx';
import { Tabs } from 'radix-ui';

export interface Segment<T extends string> {
  value: T;
  label: string;
}

interface Props<T extends string> {
  label: string;
  value: T;
  segments: readonly Segment<T>[];
  onChange: (value: T) => void;
}

/** A few views of the same thing, one shown at a time. */
export function Segments<T extends string>({ label, value, segments, onChange }: Props<T>) {
  return (
    <Tabs.Root value={value} onValueChange={(next) => onChange(next as T)} activationMode="automatic">
      <Tabs.List aria-label={label} className="flex flex-wrap gap-1">
        {segments.map((segment) => (
          <Tabs.Trigger
            key={segment.value}
            value={segment.value}
            className={clsx(
              'rounded-sm border px-2 py-1 font-semibold whitespace-nowrap',
              segment.value === value
                ? 'border-plum bg-plum text-white'
                : 'border-line-strong bg-sheet hover:bg-paper',
            )}
          >
            {segment.label}
          </Tabs.Trigger>
        ))}
      </Tabs.List>
      {segments.map((segment) => (
        <Tabs.Content key={segment.value} value={segment.value} className="sr-only" tabIndex={-1}>
          {segment.label} shown
        </Tabs.Content>
      ))}
    </Tabs.Root>
  );
}
