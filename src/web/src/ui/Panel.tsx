import clsx from 'clsx';
import type { ReactNode } from 'react';
import { leadsHome } from './home';

/** A block in a side panel. */
export function Panel({
  title,
  children,
  className,
}: {
  title?: ReactNode;
  children: ReactNode;
  className?: string;
}) {
  return (
    <section className={clsx('rounded-lg border border-line bg-sheet p-2.5', className)}>
      {title && (
        <h3 className="mb-1.5 font-body text-[12px] font-semibold tracking-normal text-ink-2">{title}</h3>
      )}
      {children}
    </section>
  );
}

/** The bar above a working surface: what the page is, and what can be done. */
export function PageHead({
  title,
  note,
  level = 1,
  children,
}: {
  title: string;
  note?: ReactNode;
  /** 2 for a part of a page that has its title already. */
  level?: 1 | 2;
  children?: ReactNode;
}) {
  const Title = level === 1 ? 'h1' : 'h2';
  return (
    <div
      {...leadsHome}
      className="flex min-h-[47px] flex-wrap items-center gap-2 border-b border-line bg-sheet px-3 py-2"
    >
      <Title className="mr-1 text-[17px]">{title}</Title>
      {note && <span className="text-ink-3">{note}</span>}
      <div className="ml-auto flex flex-wrap items-center justify-end gap-2">{children}</div>
    </div>
  );
}

/** What a page is for, and the next step, when there is nothing on it yet. */
export function Empty({ title, children }: { title: string; children: ReactNode }) {
  return (
    <div className="mx-auto mt-16 max-w-md text-center">
      <h2 className="text-[16px]">{title}</h2>
      <div className="mt-2 text-ink-2">{children}</div>
    </div>
  );
}
