import { Fragment } from 'react';
import type { Schemas } from '../api/client';
import { MarkedText } from './MarkedText';

interface Props {
  headlines: readonly string[];
  descriptions: readonly string[];
  displayPath: readonly string[];
  landingPage: string;
  /** The search above which it is seen. */
  search?: string;
  /** On a wide screen: headlines in one line, descriptions below one another. */
  wide?: boolean;
  /** The number that a tap calls, where the ad leads to no page. */
  calls?: string | null;
  /** Who is called. */
  business?: string | null;
  /** What is new in its lines, where it is a copy: that is marked. */
  change?: Schemas['SeenChange'] | null;
  /** What could show beside it; what does is drawn. */
  beside?: readonly Schemas['TracedExtension'][] | null;
}

/** Lines one after the other; where they came of others, what is new in them is marked. */
function Lines({
  lines,
  parts,
  between,
}: {
  lines: readonly string[];
  parts?: readonly (readonly Schemas['TextPart'][])[];
  between: string;
}) {
  return lines.map((line, place) => (
    <Fragment key={place}>
      {place > 0 && between}
      {parts?.[place] ? <MarkedText parts={parts[place]} /> : line}
    </Fragment>
  ));
}

/** A text ad about as people see it. */
export function AdPicture({
  headlines,
  descriptions,
  displayPath,
  landingPage,
  search,
  wide,
  calls,
  business,
  change,
  beside,
}: Props) {
  const host = landingPage.replace(/^https?:\/\//, '').split('/')[0] ?? '';
  const shown = (kind: Schemas['ItemKind']) =>
    (beside ?? []).filter((each) => each.shows && each.kind === kind);
  const callouts = shown('callout');
  const sitelinks = shown('sitelink');
  const [number] = shown('callExtension');
  return (
    <section
      aria-label="As people see it"
      className={`border border-line-strong bg-white p-3 ${wide ? 'overflow-hidden rounded-md' : 'rounded-2xl'}`}
      // A wide screen in a narrow panel: all of it, smaller.
      style={wide ? { zoom: 0.62 } : undefined}
    >
      {search && <div className="mb-2 border-b border-line pb-1.5 text-[12px] text-ink-3">{search}</div>}
      <div className={`text-[15px] font-semibold text-plum ${wide ? 'whitespace-nowrap' : ''}`}>
        {headlines.length > 0 ? (
          <Lines lines={headlines} parts={change?.headlines} between=" · " />
        ) : (
          'Headline'
        )}
      </div>
      <div className="mt-0.5">
        {descriptions.length > 0 ? (
          <Lines lines={descriptions} parts={change?.descriptions} between=" " />
        ) : (
          'Description'
        )}
      </div>
      <div className="mt-1 text-[12px] text-ink-2">
        {[business, host].filter(Boolean).join(' · ')}
        {displayPath.length > 0 && '/'}
        <Lines lines={displayPath} parts={change?.displayPath} between="/" />{' '}
        <span className="ml-1 rounded-sm border border-line-strong px-1 text-[11px]">Advert</span>
      </div>
      {callouts.length > 0 && (
        <div className="mt-1 text-[12.5px] text-ink-2">{callouts.map((each) => each.text).join(' · ')}</div>
      )}
      {sitelinks.length > 0 && (
        <ul className={`mt-1.5 ${wide ? 'grid grid-cols-2 gap-x-6 gap-y-1' : ''}`}>
          {sitelinks.map((each) => (
            <li key={each.id} className={wide ? '' : 'border-t border-line py-1'}>
              <span className="font-semibold text-plum">{each.text}</span>
              {wide &&
                each.lines.map((line) => (
                  <span key={line} className="block text-[12.5px]">
                    {line}
                  </span>
                ))}
            </li>
          ))}
        </ul>
      )}
      {calls && (
        <div className="mt-2 rounded-md bg-plum px-2 py-1 text-center font-semibold text-white">
          Tap to call {calls}
        </div>
      )}
      {number && (
        <div className="mt-2 rounded-md border border-plum px-2 py-1 text-center font-semibold text-plum">
          {number.numberOnly ? 'Call' : 'Page or call'} {number.text}
        </div>
      )}
    </section>
  );
}
