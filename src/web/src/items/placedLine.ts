/** A line of an ad that is kept to a place has it behind, as lists and files have it: Ask For A Price [1]. */

export interface PlacedLine {
  text: string;
  /** From 1; none for a line that may stand anywhere. */
  place: number | null;
}

const notation = /^(.+?)\s*\[([1-4])\]$/;

/** The text of a line, and the place that it is kept to. */
export function placedOf(line: string): PlacedLine {
  const [, text, place] = notation.exec(line) ?? [];
  return text === undefined ? { text: line, place: null } : { text, place: Number(place) };
}

/** The line as it is written. */
export const writtenOf = ({ text, place }: PlacedLine): string =>
  place === null || text.trim() === '' ? text : `${text} [${place}]`;
