import type { Input } from './FieldEditor';

const lines = (value: Input | undefined) =>
  (Array.isArray(value) ? value : [value ?? '']).filter((line) => line.trim() !== '');

/** A text ad about as people would see it. */
export function AdPreview({ values }: { values: Record<string, Input> }) {
  const host =
    lines(values.landingPage)[0]
      ?.replace(/^https?:\/\//, '')
      .split('/')[0] ?? '';
  return (
    <section aria-label="As people see it" className="rounded-2xl border border-line-strong bg-white p-3">
      <div className="text-[15px] font-semibold text-plum">
        {lines(values.headlines).join(' · ') || 'Headline'}
      </div>
      <div className="mt-0.5">{lines(values.descriptions).join(' ') || 'Description'}</div>
      <div className="mt-1 text-[12px] text-ink-2">
        {[host, ...lines(values.displayPath)].join('/')}{' '}
        <span className="ml-1 rounded-sm border border-line-strong px-1 text-[11px]">Advert</span>
      </div>
    </section>
  );
}
