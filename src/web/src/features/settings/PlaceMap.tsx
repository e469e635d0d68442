import type { SheetRow } from '../../api/client';
import { Panel } from '../../ui/Panel';
import type { KnownPlace } from './useSettings';

const [width, height] = [300, 240];
const kilometresOfDegree = 111.2;

/** Towns where they are, by their coordinates alone; those that are in are filled, circles are radii. A click adds one. */
export function PlaceMap({
  known,
  places,
  onChoose,
}: {
  known: readonly KnownPlace[];
  places: readonly SheetRow[];
  onChoose: (place: KnownPlace) => void;
}) {
  const towns = known.flatMap((place) =>
    place.latitude !== null && place.longitude !== null
      ? [{ place, latitude: place.latitude, longitude: place.longitude }]
      : [],
  );
  // What is chosen is in the middle; without any, most of the towns are.
  const chosen = towns.filter(({ place }) => standing(place, places) === 'in');
  const focus = chosen.length > 1 ? chosen : crowd(towns);
  const [south, north] = extent(focus.map((town) => town.latitude));
  const [west, east] = extent(focus.map((town) => town.longitude));
  const stretch = Math.cos((((south + north) / 2) * Math.PI) / 180);
  const scale = Math.min(width / ((east - west) * stretch), height / (north - south));
  const x = (longitude: number) => width / 2 + (longitude - (west + east) / 2) * stretch * scale;
  const y = (latitude: number) => height / 2 - (latitude - (south + north) / 2) * scale;
  const inSight = towns.filter(
    (town) =>
      x(town.longitude) > 0 && x(town.longitude) < width && y(town.latitude) > 0 && y(town.latitude) < height,
  );
  return (
    <Panel title="Map">
      <svg
        viewBox={`0 0 ${width} ${height}`}
        className="block w-full bg-sheet"
        role="group"
        aria-label="Towns by their coordinates"
      >
        {places.map((item) => {
          const radius = item.values['radius'];
          const town = towns.find(({ place }) => place.fullName === item.name);
          return radius == null || !town ? null : (
            <circle
              key={item.id}
              cx={x(town.longitude)}
              cy={y(town.latitude)}
              r={(Number(radius) / kilometresOfDegree) * scale}
              className="fill-plum-wash stroke-plum-soft"
            />
          );
        })}
        {inSight.map((town) => {
          const state = standing(town.place, places);
          return (
            <g key={town.place.fullName} className="cursor-pointer" onClick={() => onChoose(town.place)}>
              <title>
                {town.place.fullName}
                {state === 'in' ? ' – in' : state === 'out' ? ' – out' : ''}
              </title>
              {/* A wider target than what is seen. */}
              <circle cx={x(town.longitude)} cy={y(town.latitude)} r={9} fill="transparent" />
              <circle
                cx={x(town.longitude)}
                cy={y(town.latitude)}
                r={3.5}
                className={state === 'in' ? 'fill-plum stroke-plum' : 'fill-sheet stroke-ink-3'}
              />
              {state === 'out' && (
                <line
                  x1={x(town.longitude) - 5}
                  x2={x(town.longitude) + 5}
                  y1={y(town.latitude) + 5}
                  y2={y(town.latitude) - 5}
                  className="stroke-brick"
                />
              )}
            </g>
          );
        })}
        {labelled(inSight, x, y).map((town) => (
          <text
            key={town.place.fullName}
            x={x(town.longitude) + 6}
            y={y(town.latitude) + 3.5}
            className="pointer-events-none fill-ink-2 text-[10px]"
          >
            {town.place.name}
          </text>
        ))}
      </svg>
      <p className="mt-1 text-[12px] text-ink-3">
        Filled: in. Crossed: out. Circles: radii. A click adds a town.
      </p>
    </Panel>
  );
}

interface Town {
  place: KnownPlace;
  latitude: number;
  longitude: number;
}

/** Where a town is by the names of what it lies in; a radius shows as its circle. */
function standing(town: KnownPlace, places: readonly SheetRow[]): 'in' | 'out' | null {
  const around = places.filter(
    (item) => item.name === town.fullName || town.fullName.endsWith(`, ${item.name}`),
  );
  return around.some((item) => item.values['side'] === 'out') ? 'out' : around.length > 0 ? 'in' : null;
}

function extent(numbers: readonly number[]): [number, number] {
  const [low, high] = [Math.min(...numbers), Math.max(...numbers)];
  const margin = Math.max(0.3, (high - low) * 0.12);
  return [low - margin, high + margin];
}

/** The towns near the middle one: a few that are far away would make all others one dot. */
function crowd(towns: readonly Town[]): readonly Town[] {
  const middle = (numbers: number[]) =>
    numbers.sort((one, other) => one - other)[Math.floor(numbers.length / 2)] ?? 0;
  const latitude = middle(towns.map((town) => town.latitude));
  const longitude = middle(towns.map((town) => town.longitude));
  return towns.filter(
    (town) => Math.abs(town.latitude - latitude) < 4 && Math.abs(town.longitude - longitude) < 6,
  );
}

/** Names that have room. */
function labelled(towns: readonly Town[], x: (at: number) => number, y: (at: number) => number): Town[] {
  const placed: Town[] = [];
  for (const town of towns) {
    const isFree = placed.every(
      (other) =>
        Math.abs(y(other.latitude) - y(town.latitude)) > 11 ||
        Math.abs(x(other.longitude) - x(town.longitude)) > 58,
    );
    if (isFree && x(town.longitude) < width - 50) placed.push(town);
  }
  return placed;
}
