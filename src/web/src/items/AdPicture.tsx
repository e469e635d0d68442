interface Props {
  headlines: readonly string[];
  descriptions: readonly string[];
  displayPath: readonly string[];
  landingPage: string;
  /** The search above which it is seen. */
  search?: string;
  /** On a wide screen: headlines in one line, descriptions below one another. */
  wide?: boolean;
}

/** A text ad about as people see it. */
export function AdPicture({ headlines, descriptions, displayPath, landingPage, search, wide }: Props) {
  const host = landingPage.replace(/^https?:\/\//, '').split('/')[0] ?? '';
  return (
    <section
      aria-label="As people see it"
      className={`border border-line-strong bg-white p-3 ${wide ? 'overflow-hidden rounded-md' : 'rounded-2xl'}`}
      // A wide screen in a narrow panel: all of it, smaller.
      style={wide ? { zoom: 0.62 } : undefined}
    >
      {search && <div className="mb-2 border-b border-line pb-1.5 text-[12px] text-ink-3">{search}</div>}
      <div className={`text-[15px] font-semibold text-plum ${wide ? 'whitespace-nowrap' : ''}`}>
        {headlines.join(' · ') || 'Headline'}
      </div>
      <div className="mt-0.5">{descriptions.join(' ') || 'Description'}</div>
      <div className="mt-1 text-[12px] text-ink-2">
        {[host, ...displayPath].join('/')}{' '}
        <span className="ml-1 rounded-sm border border-line-strong px-1 text-[11px]">Advert</span>
      </div>
    </section>
  );
}
