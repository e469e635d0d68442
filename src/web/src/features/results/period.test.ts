import { describe, expect, it } from 'vitest';
import { addDays, daysOf } from './period';

describe('periods', () => {
  it('counts both the first and the last of seven days', () => {
    expect(daysOf('last7', '2026-05-11')).toEqual({ first: '2026-05-05', last: '2026-05-11' });
  });

  it('takes the whole month before, also across the end of a year', () => {
    expect(daysOf('lastMonth', '2026-01-09')).toEqual({ first: '2025-12-01', last: '2025-12-31' });
  });

  it('takes weeks from Monday to Sunday', () => {
    expect(daysOf('lastWeek', '2026-05-10')).toEqual({ first: '2026-04-27', last: '2026-05-03' });
  });

  it('steps over the end of February in a leap year', () => {
    expect(addDays('2028-02-28', 1)).toBe('2028-02-29');
  });

  it('is not moved by the clocks going forward', () => {
    expect(addDays('2026-03-28', 2)).toBe('2026-03-30');
  });
});
