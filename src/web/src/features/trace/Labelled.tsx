import type { ReactNode } from 'react';

/** A control with its name above it, for controls that carry their name for those who do not see it. */
export function Labelled({ name, children }: { name: string; children: ReactNode }) {
  return (
    <div>
      <div aria-hidden className="mb-0.5 text-[12px] font-semibold text-ink-2">
        {name}
      </div>
      {children}
    </div>
  );
}
