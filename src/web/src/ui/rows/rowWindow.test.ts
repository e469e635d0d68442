import { describe, expect, it } from 'vitest';
import { bodyOf, longestBody, nearsWrongEnd, scrolled, standingAt, type Geometry } from './rowWindow';

const short: Geometry = { rows: 27_000, view: 540 };
const long: Geometry = { rows: 27 * 2_000_000, view: 540 };
const start = { top: 0, shift: 0 };
const placeOf = (standing: { top: number; shift: number }) => standing.top + standing.shift;

describe('a list that a browser can hold', () => {
  it('is as long as its rows and scrolls as they do', () => {
    expect(bodyOf(short)).toBe(27_000);
    expect(placeOf(scrolled(start, 12_345, short))).toBe(12_345);
  });
});

describe('a list that is too long for a browser', () => {
  it('has an element that is not', () => {
    expect(bodyOf(long)).toBe(longestBody);
  });

  it('moves by a turn of the wheel as far as any list', () => {
    const there = standingAt(20_000_000, long);
    expect(placeOf(scrolled(there, there.top + 120, long))).toBeCloseTo(20_000_120, 3);
  });

  it('goes by the scroll bar to the same part of the rows', () => {
    const half = (longestBody - long.view) / 2;
    expect(placeOf(scrolled(start, half, long))).toBeCloseTo((long.rows - long.view) / 2, 3);
  });

  it('shows the first row at its beginning and the last at its end', () => {
    expect(placeOf(scrolled({ top: 300, shift: 5_000 }, 0, long))).toBe(0);
    expect(placeOf(scrolled(start, longestBody - long.view, long))).toBe(long.rows - long.view);
  });

  it('finds any place again', () => {
    for (const place of [0, 1, 27, 1_000_000, 33_333_333, long.rows - long.view])
      expect(placeOf(standingAt(place, long))).toBeCloseTo(place, 3);
  });

  it('is moved along when the wheel would reach an end that the rows are far from', () => {
    const near = { top: 100, shift: 9_000 };
    expect(nearsWrongEnd(near, long)).toBe(true);
    expect(nearsWrongEnd(standingAt(placeOf(near), long), long)).toBe(false);
    expect(nearsWrongEnd(start, long)).toBe(false);
  });

  it('never leaves its rows', () => {
    const bottom = { top: longestBody - long.view - 100, shift: long.rows - longestBody };
    expect(placeOf(scrolled(bottom, bottom.top + 90, long))).toBeLessThanOrEqual(long.rows - long.view);
  });
});
