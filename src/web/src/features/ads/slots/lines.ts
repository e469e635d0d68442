/** Lines that are moved, put in and taken out, in slots of which the empty ones at the end say nothing. */

/** A line goes up or down; the one that stood there takes its place. */
export function moved(lines: readonly string[], from: number, to: number): string[] {
  const next = [...lines];
  const [line] = next.splice(from, 1);
  if (line === undefined || to < 0 || to >= lines.length) return [...lines];
  next.splice(to, 0, line);
  return next;
}

/** Pasted lines fill the slots from one on; what does not fit is left out. */
export function filled(lines: readonly string[], from: number, pasted: string, most: number): string[] {
  const next = [...lines];
  for (const [place, line] of rowsOf(pasted).entries()) if (from + place < most) next[from + place] = line;
  return Array.from(next, (line) => line ?? '');
}

/** The rows of what is pasted: one is no list. */
export const rowsOf = (pasted: string) =>
  pasted
    .split(/\r?\n/)
    .map((line) => line.trim())
    .filter((line) => line !== '');

/** A text with another put into it, and blanks between words. */
export function putIn(text: string, at: number, other: string): string {
  const [before, after] = [text.slice(0, at), text.slice(at)];
  const gap = (left: string, right: string) => (/\S$/.test(left) && /^[\p{L}\p{N}{]/u.test(right) ? ' ' : '');
  return `${before}${gap(before, other)}${other}${gap(other, after)}${after}`;
}

/** Without the empty slots at the end: what is sent. */
export function said(lines: readonly string[]): string[] {
  let end = lines.length;
  while (end > 0 && lines[end - 1]?.trim() === '') end--;
  return lines.slice(0, end);
}
