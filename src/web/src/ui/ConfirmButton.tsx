import { useEffect, useRef, useState, type ReactNode } from 'react';
import { Button, type ButtonTone } from './Button';

interface Confirmed {
  /** What is to be confirmed, as text: a yes to something else is none. */
  of: string;
  /** What is shown is what would be done. */
  ready: boolean;
  /** What is shown may be done without another look. */
  clear: boolean;
  /** As things stand it cannot come to be ready. */
  never: boolean;
  onConfirm: () => void;
}

/**
 * A yes that may be said before the answer is there: it is kept, and carried out when the answer says nothing that asks for a
 * look.
 */
export function useConfirmed({ of, ready, clear, never, onConfirm }: Confirmed) {
  const [said, setSaid] = useState<{ of: string; time: number } | null>(null);
  const carriedOut = useRef(0);
  useEffect(() => {
    if (said === null || said.of !== of || !ready || carriedOut.current === said.time) return;
    carriedOut.current = said.time;
    if (clear) onConfirm();
  }, [said, of, ready, clear, onConfirm]);
  return {
    waits: said?.of === of && !ready && !never,
    confirm: () => {
      if (ready) onConfirm();
      else if (!never) setSaid((before) => ({ of, time: (before?.time ?? 0) + 1 }));
    },
  };
}

/** The button that does what is shown. It has the focus in a dialog from the start, so it is never disabled while it waits. */
export function ConfirmButton({
  children,
  tone = 'ember',
  open,
  onPress,
}: {
  children: ReactNode;
  tone?: ButtonTone;
  /** It does something when it is pressed. */
  open: boolean;
  onPress: () => void;
}) {
  return (
    <Button
      data-confirms
      tone={tone}
      aria-disabled={!open}
      className="aria-disabled:border-line aria-disabled:bg-sunk aria-disabled:text-ink-3"
      // A key that is held down since the dialog was opened says nothing.
      onKeyDown={(event) => event.repeat && event.preventDefault()}
      onClick={onPress}
    >
      {children}
    </Button>
  );
}
