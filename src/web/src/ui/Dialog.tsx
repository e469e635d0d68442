import clsx from 'clsx';
import { X } from 'lucide-react';
import { Dialog as Radix } from 'radix-ui';
import { useRef, useState, type ReactNode } from 'react';
import { goHome, hasHome, keeperOf } from './home';

interface Props {
  open: boolean;
  onClose: () => void;
  title: ReactNode;
  description?: ReactNode;
  children: ReactNode;
  footer?: ReactNode;
  wide?: boolean;
}

export function Dialog({ open, onClose, ...content }: Props) {
  return (
    <Radix.Root open={open} onOpenChange={(next) => !next && onClose()}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-plum-deep/40" />
        <Content {...content} />
      </Radix.Portal>
    </Radix.Root>
  );
}

function Content({ title, description, children, footer, wide }: Omit<Props, 'open' | 'onClose'>) {
  // Dialogs are opened by keys as well as by buttons: the focus goes back to wherever it was when this one came to be.
  const [before] = useState(() => document.activeElement);
  const body = useRef<HTMLDivElement>(null);
  return (
    <Radix.Content
      className={clsx(
        'fixed top-[min(10vh,64px)] left-1/2 z-50 flex max-h-[calc(100vh-2*min(10vh,64px))] max-w-[calc(100vw-24px)] -translate-x-1/2 flex-col rounded-lg border border-line-strong bg-sheet shadow-xl',
        wide ? 'w-[820px]' : 'w-[480px]',
      )}
      onOpenAutoFocus={(event) => {
        // Work begins at the first thing to fill in; where there is nothing, at the button that does what is shown.
        const dialog = event.currentTarget as HTMLElement;
        const first =
          body.current?.querySelector<HTMLElement>('[data-first]') ??
          body.current?.querySelector<HTMLElement>('input:not([disabled]), textarea:not([disabled])') ??
          dialog.querySelector<HTMLElement>('[data-confirms]') ??
          body.current?.querySelector<HTMLElement>('button:not([disabled]), [tabindex="0"]') ??
          dialog;
        event.preventDefault();
        first.focus();
      }}
      onCloseAutoFocus={(event) => {
        event.preventDefault();
        // Whoever leaves a dialog is back where something was being worked in, or in the sheet, where there is one.
        if (before instanceof HTMLElement && before.isConnected && keeperOf(before)) before.focus();
        else if (hasHome()) goHome();
        else if (before instanceof HTMLElement && before.isConnected) before.focus();
        else goHome();
      }}
      {...(description ? {} : { 'aria-describedby': undefined })}
    >
      <div className="flex items-start gap-3 border-b border-line px-4 py-3">
        <div className="min-w-0 flex-1">
          <Radix.Title className="text-[16px]">{title}</Radix.Title>
          {description && <Radix.Description className="mt-0.5 text-ink-2">{description}</Radix.Description>}
        </div>
        <Radix.Close aria-label="Close" className="rounded-sm p-1 text-ink-3 hover:bg-sunk">
          <X size={16} aria-hidden />
        </Radix.Close>
      </div>
      <div ref={body} className="min-h-0 flex-1 overflow-auto px-4 py-3">
        {children}
      </div>
      {footer && (
        <div className="flex flex-wrap justify-end gap-2 border-t border-line px-4 py-3">{footer}</div>
      )}
    </Radix.Content>
  );
}
