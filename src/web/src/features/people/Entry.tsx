import type { ReactNode } from 'react';

/** A page before the application: what Fendrik is, and one thing to fill in. */
export function Entry({ title, children }: { title: string; children: ReactNode }) {
  return (
    <main className="grid h-full grid-cols-1 bg-plum-deep min-[900px]:grid-cols-[1fr_420px]">
      <div className="swallowtail hidden flex-col justify-center gap-4 bg-plum p-16 pr-24 text-[#f4ecf5] min-[900px]:flex">
        <svg width={56} height={56} viewBox="0 0 22 22" aria-hidden>
          <path d="M4 1v20" stroke="#f4ecf5" strokeWidth="2" />
          <path d="M5 2h15l-4 5 4 5H5z" fill="#c8501e" />
        </svg>
        <p className="font-head text-[44px] leading-tight font-semibold">Fendrik</p>
        <p className="max-w-md text-[16px] text-[#e6d8ea]">
          Plan it, write it, price it, ship it, learn from it, improve it. Every step can be seen before, and
          taken back after.
        </p>
      </div>
      <div className="grid place-items-center bg-paper p-8">
        <div className="w-full max-w-[300px] space-y-3">
          <h1 className="text-[22px]">{title}</h1>
          {children}
        </div>
      </div>
    </main>
  );
}
