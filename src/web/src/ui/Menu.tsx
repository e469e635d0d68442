import { DropdownMenu } from 'radix-ui';
import { useRef, type ReactNode } from 'react';
import { goHome, hasHome, keeperOf } from './home';

export interface MenuEntry {
  label: ReactNode;
  onSelect: () => void;
  disabled?: boolean;
}

interface Props {
  trigger: ReactNode;
  entries: readonly MenuEntry[];
  heading?: string;
  align?: 'start' | 'end';
}

export function Menu({ trigger, entries, heading, align = 'end' }: Props) {
  // What is chosen is done once the menu has given the focus back: a dialog that it opens then keeps the focus, and gives it
  // back in its turn.
  const chosen = useRef<(() => void) | null>(null);
  const root = useRef<HTMLButtonElement>(null);
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger ref={root} asChild>
        {trigger}
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align={align}
          sideOffset={4}
          onCloseAutoFocus={(event) => {
            const keeper = keeperOf(root.current);
            if (keeper) {
              event.preventDefault();
              keeper.querySelector<HTMLElement>('input')?.focus();
            } else if (hasHome()) {
              event.preventDefault();
              goHome();
            }
            if (chosen.current) window.setTimeout(chosen.current);
            chosen.current = null;
          }}
          // Above the news, which stand where some menus open.
          className="z-[1000000000] min-w-44 rounded-lg border border-line-strong bg-sheet p-1 shadow-lg"
        >
          {heading && (
            <DropdownMenu.Label className="px-2 py-1 text-[12px] text-ink-3">{heading}</DropdownMenu.Label>
          )}
          {entries.map((entry, place) => (
            <DropdownMenu.Item
              key={place}
              disabled={entry.disabled}
              onSelect={() => {
                chosen.current = entry.onSelect;
              }}
              className="cursor-default rounded-sm px-2 py-1 outline-none data-[disabled]:text-ink-3 data-[highlighted]:bg-plum-wash"
            >
              {entry.label}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
