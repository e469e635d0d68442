/** Longest element that every browser lays out and scrolls without rounding, in pixels; they differ, this is well below. */
export const longestBody = 15_000_000;

export interface Geometry {
  /** Length of all rows. */
  rows: number;
  /** Length of what is seen of them at once. */
  view: number;
}

/** Where a body of rows stands: how far its element is scrolled, and how much further the rows are than that. */
export interface Standing {
  top: number;
  shift: number;
}

/** Length of the element that stands for the rows. */
export function bodyOf({ rows }: Geometry): number {
  return Math.min(rows, longestBody);
}

function ends(geometry: Geometry) {
  return {
    lastTop: Math.max(0, bodyOf(geometry) - geometry.view),
    lastPlace: Math.max(0, geometry.rows - geometry.view),
  };
}

/**
 * The standing after the element was scrolled. A little way moves the rows as far as the element, so that the wheel feels as
 * always; a long way, as by the scroll bar, goes to the same part of the rows as of the element.
 */
export function scrolled(before: Standing, top: number, geometry: Geometry): Standing {
  const { lastTop, lastPlace } = ends(geometry);
  if (lastPlace <= lastTop) return { top, shift: 0 };
  if (top <= 0) return { top, shift: 0 };
  if (top >= lastTop) return { top, shift: lastPlace - top };
  const by = top - before.top;
  const place = Math.abs(by) <= geometry.view ? before.top + before.shift + by : (top * lastPlace) / lastTop;
  return { top, shift: Math.max(0, Math.min(lastPlace, place)) - top };
}

/** The standing with the rows at a place: the element goes to the same part, the rows do not seem to move. */
export function standingAt(place: number, geometry: Geometry): Standing {
  const { lastTop, lastPlace } = ends(geometry);
  const held = Math.max(0, Math.min(lastPlace, place));
  if (lastPlace <= lastTop) return { top: held, shift: 0 };
  const top = (held * lastTop) / lastPlace;
  return { top, shift: held - top };
}

/** True when the element is about to reach an end that the rows are far from. */
export function nearsWrongEnd({ top, shift }: Standing, geometry: Geometry): boolean {
  const { lastTop, lastPlace } = ends(geometry);
  const place = top + shift;
  return (
    shift !== 0 &&
    ((top < geometry.view && place > 2 * geometry.view) ||
      (top > lastTop - geometry.view && place < lastPlace - 2 * geometry.view))
  );
}
