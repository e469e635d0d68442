import { useState } from 'react';
import { figureOf, useMeasures } from '../../../api/measures';
import { useBreakdown, type BreakdownAsked } from '../useBreakdown';
import { readingOf, type Frame } from './WeekPicture';

const [width, height, margin] = [920, 340, 34];
/** The right side names what lies too far away to be drawn beside the rest. */
const aside = 190;
const mostAside = 12;
const largest = 26;

/** One figure of each place where people were, or that they meant, at its place: area for area. */
export function MapPicture({
  asked,
  figure,
  frame,
}: {
  asked: BreakdownAsked;
  figure: string;
  frame: Frame;
}) {
  const measures = useMeasures();
  const report = useBreakdown({ ...asked, by: 'place', then: undefined });
  const [hovered, setHovered] = useState<string | null>(null);
  const places = (report.data?.rows ?? []).map((row) => ({ row, figure: figureOf(row.figures, figure) }));
  const drawn = places.flatMap((place) => (place.row.point ? [{ ...place, point: place.row.point }] : []));
  const { near, far } = crowd(drawn);
  const room = far.length > 0 ? width - aside : width;
  const most = Math.max(1e-9, ...drawn.map((place) => place.figure.now ?? 0));
  const [south, north] = extent(near.map((place) => place.point.latitude));
  const [west, east] = extent(near.map((place) => place.point.longitude));
  // Degrees of longitude are narrower the farther from the equator.
  const stretch = Math.cos((((south + north) / 2) * Math.PI) / 180);
  const scale = Math.min(
    (room - 2 * margin) / ((east - west) * stretch),
    (height - 2 * margin) / (north - south),
  );
  const x = (longitude: number) => room / 2 + (longitude - (west + east) / 2) * stretch * scale;
  const y = (latitude: number) => height / 2 - (latitude - (south + north) / 2) * scale;
  const radius = (value: number | null) => Math.max(2, largest * Math.sqrt(Math.max(0, value ?? 0) / most));
  const said = drawn.find((place) => place.row.key === hovered);
  const title = `${measures.titleOf(figure)} by place`;
  const text = (place: (typeof places)[number]) =>
    `${place.row.label}: ${measures.write(figure, place.figure.now)} against ${measures.write(figure, place.figure.before)}`;
  const nowhere = places.length - drawn.length;
  return frame(
    <svg viewBox={`0 0 ${width} ${height}`} role="img" aria-label={title} className="block w-full">
      {[...near]
        .sort((one, other) => (other.figure.now ?? 0) - (one.figure.now ?? 0))
        .map((place) => (
          <circle
            key={place.row.key}
            cx={x(place.point.longitude)}
            cy={y(place.point.latitude)}
            r={radius(place.figure.now)}
            fillOpacity={place.point.isInterest ? 0 : 0.35}
            strokeDasharray={place.point.isInterest ? '3 2' : undefined}
            className="fill-plum stroke-plum"
            onMouseEnter={() => setHovered(place.row.key)}
            onMouseLeave={() => setHovered(null)}
          />
        ))}
      {labelled(near, x, y).map((place) => (
        <text
          key={place.row.key}
          x={x(place.point.longitude) + radius(place.figure.now) + 4}
          y={y(place.point.latitude) + 4}
          className="pointer-events-none fill-ink-2 stroke-sheet text-[11.5px]"
          strokeWidth={3}
          paintOrder="stroke"
        >
          {place.row.label}
        </text>
      ))}
      {far.length > 0 && (
        <text x={room + 8} y={margin} className="fill-ink-3 text-[11.5px]">
          Farther away
        </text>
      )}
      {far.slice(0, mostAside).map((place, at) => (
        <text key={place.row.key} x={room + 8} y={margin + 20 + at * 19} className="fill-ink-2 text-[11.5px]">
          {short(place.row.label)} {measures.write(figure, place.figure.now)}
        </text>
      ))}
      {far.length > mostAside && (
        <text x={room + 8} y={margin + 20 + mostAside * 19} className="fill-ink-3 text-[11.5px]">
          and {far.length - mostAside} more
        </text>
      )}
      {said && (
        <text x={width - 12} y={16} textAnchor="end" className="fill-ink text-[12.5px] font-semibold">
          {text(said)}
        </text>
      )}
    </svg>,
    {
      name: title,
      words: places.map(text),
      note:
        readingOf(report) ??
        `filled: people there · dashed: people elsewhere who meant it${nowhere > 0 ? ` · ${nowhere} with no place on a map: see the rows by place` : ''}`,
    },
  );
}

const short = (text: string) => (text.length > 22 ? `${text.slice(0, 21)}…` : text);

/** How many degrees from the middle a place may lie to be drawn: a country's breadth. */
const [tall, broad] = [6, 9];

/** What lies around the middle place of all, and what lies too far away: a few of these would make all others one dot. */
function crowd<T extends { point: { latitude: number; longitude: number }; figure: { now: number | null } }>(
  places: readonly T[],
): { near: readonly T[]; far: readonly T[] } {
  const middle = (numbers: number[]) =>
    numbers.sort((one, other) => one - other)[Math.floor(numbers.length / 2)] ?? 0;
  const latitude = middle(places.map((place) => place.point.latitude));
  const longitude = middle(places.map((place) => place.point.longitude));
  const isNear = (place: T) =>
    Math.abs(place.point.latitude - latitude) < tall && Math.abs(place.point.longitude - longitude) < broad;
  const far = places
    .filter((place) => !isNear(place))
    .sort((one, other) => (other.figure.now ?? 0) - (one.figure.now ?? 0));
  return { near: places.filter(isNear), far };
}

function extent(numbers: readonly number[]): [number, number] {
  if (numbers.length === 0) return [0, 1];
  const [low, high] = [Math.min(...numbers), Math.max(...numbers)];
  const around = Math.max(0.15, (high - low) * 0.05);
  return [low - around, high + around];
}

/** Names that have room, those of the most first. */
function labelled<
  T extends {
    point: { latitude: number; longitude: number; isInterest: boolean };
    figure: { now: number | null };
  },
>(places: readonly T[], x: (at: number) => number, y: (at: number) => number): T[] {
  const placed: T[] = [];
  for (const place of [...places].sort((one, other) => (other.figure.now ?? 0) - (one.figure.now ?? 0))) {
    const isFree = placed.every(
      (other) =>
        Math.abs(y(other.point.latitude) - y(place.point.latitude)) > 13 ||
        Math.abs(x(other.point.longitude) - x(place.point.longitude)) > 90,
    );
    if (isFree && !place.point.isInterest) placed.push(place);
  }
  return placed;
}
