import { describe, expect, it } from 'vitest';
import { holds, spansOf } from './weekSelection';

const block = { from: { day: 4, hour: 20 }, to: { day: 0, hour: 17 } };

describe('a block of hours', () => {
  it('holds what lies between its corners, whichever was first', () => {
    expect(holds(block, { day: 2, hour: 18 })).toBe(true);
    expect(holds(block, { day: 5, hour: 18 })).toBe(false);
    expect(holds(block, { day: 2, hour: 16 })).toBe(false);
  });

  it('is a part of each of its days', () => {
    expect(spansOf(block)).toEqual(
      ['monday', 'tuesday', 'wednesday', 'thursday', 'friday'].map((day) => ({
        day,
        from: 17 * 60,
        to: 21 * 60,
      })),
    );
    expect(spansOf(block, { from: 17 * 60 + 30, to: 21 * 60 })[0]).toEqual({
      day: 'monday',
      from: 1050,
      to: 1260,
    });
  });
});
