import { Tooltip } from 'radix-ui';
import type { ReactNode } from 'react';

/** What a hover or a focus explains. The child must be able to take the focus to be of use by keyboard. */
export function Tip({ text, children }: { text: ReactNode; children: ReactNode }) {
  return (
    <Tooltip.Root>
      <Tooltip.Trigger asChild>{children}</Tooltip.Trigger>
      <Tooltip.Portal>
        <Tooltip.Content
          sideOffset={5}
          className="z-50 max-w-72 rounded-sm bg-plum-deep px-2.5 py-1.5 text-[12.5px] text-white"
        >
          {text}
          <Tooltip.Arrow className="fill-plum-deep" />
        </Tooltip.Content>
      </Tooltip.Portal>
    </Tooltip.Root>
  );
}
