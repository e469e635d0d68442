import { describe, expect, it } from 'vitest';
import { ticks } from './ticks';

describe('the axis of the chart', () => {
  it('begins at zero and reaches above the highest bar', () => {
    for (const most of [0.003, 0.7, 3, 19.1, 420, 1_000_000]) {
      const axis = ticks(most);
      expect(axis[0]).toBe(0);
      expect(axis.at(-1)).toBeGreaterThanOrEqual(most);
      expect(axis.length).toBeLessThanOrEqual(6);
    }
  });

  it('is drawn for nothing too', () => {
    expect(ticks(0)).toEqual([0, 1]);
  });
});
