import { Command } from 'cmdk';
import { useEffect, useRef } from 'react';

interface Props {
  label: string;
  value: string;
  options: readonly { value: string; label: string }[];
  onChoose: (value: string) => void;
  onLeave: () => void;
}

/** One of several in a cell: typing narrows the list down, Enter takes what is marked. */
export function ChoiceCell({ label, value, options, onChoose, onLeave }: Props) {
  const root = useRef<HTMLDivElement>(null);
  const chosen = useRef(false);
  useEffect(() => root.current?.querySelector('input')?.focus(), []);
  const now = options.find((option) => option.value === value)?.label;
  return (
    <Command
      ref={root}
      label={label}
      defaultValue={now}
      className="absolute -top-[13px] left-0 z-20 w-max min-w-full rounded-sm border border-plum bg-sheet shadow-lg"
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key !== 'Escape' && event.key !== 'Tab') return;
        event.preventDefault();
        onLeave();
      }}
      onBlur={(event) => {
        if (!chosen.current && !root.current?.contains(event.relatedTarget)) onLeave();
      }}
    >
      <Command.Input
        aria-label={label}
        placeholder={now}
        className="h-[23px] w-full min-w-32 bg-transparent px-1.5 text-ink outline-none"
      />
      <Command.List className="max-h-56 overflow-auto border-t border-line p-1">
        <Command.Empty className="px-1.5 text-ink-3">None of that name.</Command.Empty>
        {options.map((option) => (
          <Command.Item
            key={option.value}
            value={option.label}
            onMouseDown={(event) => event.preventDefault()}
            onSelect={() => {
              chosen.current = true;
              onChoose(option.value);
            }}
            className="cursor-default rounded-sm px-1.5 py-0.5 whitespace-nowrap data-[selected=true]:bg-plum-wash"
          >
            {option.label}
          </Command.Item>
        ))}
      </Command.List>
    </Command>
  );
}
