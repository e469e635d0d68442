import type { SheetRow } from '../../api/client';

/** The row of places, which are items of their own. */
export const placesRow = 'places';

/** Places in a line: their names, what is out, radius and modifier. */
export function placeWords(places: readonly SheetRow[]): string {
  return places
    .map((place) => {
      const radius = place.values['radius'];
      const modifier = place.values['modifier'];
      const name = place.name.split(',')[0] ?? place.name;
      return [
        place.values['side'] === 'out' ? `not ${name}` : name,
        radius == null ? '' : `+ ${Number(radius)} km`,
        modifier == null ? '' : `${Number(modifier) > 0 ? '+' : '−'}${Math.abs(Number(modifier))}%`,
      ]
        .filter(Boolean)
        .join(' ');
    })
    .join('; ');
}
