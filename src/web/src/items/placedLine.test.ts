import { describe, expect, it } from 'vitest';
import examples from '../testing/placedLines.json';
import { placedOf, writtenOf } from './placedLine';

describe('a line that is kept to a place', () => {
  it.each(examples)('is read as the server reads it: $written', ({ written, text, place }) => {
    expect(placedOf(written)).toEqual({ text, place });
  });

  it('is written as it was read', () => {
    expect(writtenOf(placedOf('Ask For A Price [1]'))).toBe('Ask For A Price [1]');
  });

  it('keeps nothing to a place where nothing is said', () => {
    expect(writtenOf({ text: '', place: 2 })).toBe('');
  });
});
