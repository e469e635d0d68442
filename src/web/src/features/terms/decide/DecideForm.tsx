import { useEffect, useRef, type FormEvent, type ReactNode } from 'react';
import { Button } from '../../../ui/Button';
import { useDeciders } from './useDecide';

interface Props {
  /** What the button does, in words. */
  does: string;
  can: boolean;
  problem: string | null | undefined;
  onSubmit: () => void;
  children: ReactNode;
}

/** What is proposed, with the step always in sight below it. */
export function DecideForm({ does, can, problem, onSubmit, children }: Props) {
  const { leads, onLed } = useDeciders();
  const step = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    if (!leads || !can) return;
    step.current?.focus();
    onLed();
  }, [leads, can, onLed]);
  return (
    <form
      className="flex min-h-0 flex-1 flex-col gap-2.5"
      onSubmit={(event: FormEvent) => {
        event.preventDefault();
        if (can) onSubmit();
      }}
    >
      <div className="flex min-h-0 flex-1 flex-col gap-2.5 overflow-auto">{children}</div>
      {problem && (
        <p role="alert" className="text-brick">
          {problem}
        </p>
      )}
      <Button ref={step} type="submit" tone="ember" className="w-full py-2" disabled={!can}>
        {does}
      </Button>
    </form>
  );
}
