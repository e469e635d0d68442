import { describe, expect, it } from 'vitest';
import { copied, holds, spansOf } from './weekSelection';
import type { WeekHour } from './useHours';

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

describe('a day that is copied', () => {
  const figures = { impressions: 0, clicks: 0, cost: 0, conversions: 0, costPerConversion: null };
  const week: WeekHour[] = Array.from({ length: 7 * 24 }, (_, at) => ({
    day: 'monday',
    hour: at % 24,
    differs: false,
    says: '',
    figures,
    quarters: [0, 1, 2, 3].map((quarter) => ({
      shows: at === 9 && quarter > 1,
      modifier: at === 9 && quarter > 1 ? -20 : 0,
      answered: true,
    })),
  }));

  it('says its quarters, those alike together', () => {
    expect(copied(week, 0, 1)).toEqual([
      { day: 'tuesday', from: 0, to: 570, shows: false, modifier: null },
      { day: 'tuesday', from: 570, to: 600, shows: true, modifier: '-20%' },
      { day: 'tuesday', from: 600, to: 1440, shows: false, modifier: null },
    ]);
  });
});
