import type { Schemas } from '../../api/client';
import { nothing, shortDay } from '../../ui/format';
import { Tip } from '../../ui/Tip';

const words: Record<Schemas['PartStanding'], string> = {
  belowAverage: 'below average',
  average: 'average',
  aboveAverage: 'above average',
};

/** A keyword's quality score; its parts and how it came there on hover or focus. */
export function QualityCell({ quality }: { quality: Schemas['QualityInPeriod'] | null }) {
  if (!quality) return <>{nothing}</>;
  const { last, days } = quality;
  const changes = days.filter((day, place) => place === 0 || day.score !== days[place - 1]?.score);
  return (
    <Tip
      text={
        <>
          Likely clicks: {words[last.clickLikelihood]}. Text: {words[last.textFit]}. Page:{' '}
          {words[last.pageFit]}.
          <br />
          {changes.map((day) => `${shortDay(day.day)}: ${day.score}`).join(' → ')}
        </>
      }
    >
      <button type="button" className="rounded-sm font-semibold">
        {last.score}
        <span className="font-normal text-ink-3"> / 10</span>
      </button>
    </Tip>
  );
}
