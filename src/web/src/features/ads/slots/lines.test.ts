import { describe, expect, it } from 'vitest';
import { filled, moved, putIn, rowsOf, said } from './lines';

describe('slots', () => {
  it('take a line up or down, but not out of the ad', () => {
    expect(moved(['a', 'b', 'c'], 2, 1)).toEqual(['a', 'c', 'b']);
    expect(moved(['a', 'b', 'c'], 0, -1)).toEqual(['a', 'b', 'c']);
    expect(moved(['a', 'b', 'c'], 2, 3)).toEqual(['a', 'b', 'c']);
  });

  it('are filled by pasted lines from one slot on, as far as there are slots', () => {
    expect(filled(['a', '', ''], 1, 'b\r\n\n c \nd\n', 3)).toEqual(['a', 'b', 'c']);
    expect(rowsOf('one line')).toHaveLength(1);
  });

  it('say nothing at the end where they are empty, but keep a gap', () => {
    expect(said(['a', '', 'c', '', ' '])).toEqual(['a', '', 'c']);
  });

  it('take inserted words where one stands, with blanks between words', () => {
    expect(putIn('Tuned In', 8, '{{ place }}')).toBe('Tuned In {{ place }}');
    expect(putIn('Tuner Today', 6, '{{ place }}')).toBe('Tuner {{ place }} Today');
    expect(putIn('', 0, '{{ keyword }}')).toBe('{{ keyword }}');
    expect(putIn('For , Today', 4, '{{ place }}')).toBe('For {{ place }}, Today');
  });
});
