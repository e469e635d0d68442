// @vitest-environment jsdom
import { cleanup, render, screen } from '@testing-library/react';
import { afterEach, describe, expect, it } from 'vitest';
import type { Schemas } from '../../api/client';
import { Within } from '../../testing/Within';
import { shortDay } from '../../ui/format';
import { chartNote, DayChart } from './DayChart';

function day(iso: string, before: string, now: number | null, was: number | null): Schemas['ChartDay'] {
  const compared = { now, before: was, change: null };
  return {
    day: iso,
    last: iso,
    label: shortDay(iso),
    dayBefore: before,
    lastBefore: before,
    figures: { cost: compared },
  };
}

function draw(days: Schemas['ChartDay'][]) {
  return render(
    <Within known={{ measures: [cost] }}>
      <DayChart
        days={days}
        figure="cost"
        note=""
        frame={(picture, said) => (
          <>
            {picture}
            <p>{said.words.join('. ')}</p>
          </>
        )}
      />
    </Within>,
  );
}

const cost: Schemas['MeasureView'] = {
  key: 'cost',
  title: 'Cost',
  short: 'Cost',
  how: 'What the clicks cost.',
  form: 'money',
  group: 'brought',
  isUsual: true,
  formula: null,
};

afterEach(cleanup);

describe('the chart', () => {
  it('says its figures in words too', () => {
    draw([day('2026-05-11', '2026-05-04', 12.5, 10)]);
    expect(screen.getByText('11 May: £12.50, before £10.00')).toBeTruthy();
  });

  it('draws twice the amount twice as high', () => {
    const { container } = draw([
      day('2026-05-10', '2026-05-03', 10, null),
      day('2026-05-11', '2026-05-04', 20, null),
    ]);
    const heights = [...container.querySelectorAll('rect.fill-plum')].map((bar) =>
      Number(bar.getAttribute('height')),
    );
    expect(heights[1]).toBeCloseTo(2 * (heights[0] ?? 0));
  });

  it('draws no bar for a day without the figure', () => {
    const { container } = draw([day('2026-05-11', '2026-05-04', null, null)]);
    expect(container.querySelectorAll('rect.fill-plum')).toHaveLength(0);
  });

  it('names the days of both periods', () => {
    expect(
      chartNote({
        first: '2026-05-04',
        last: '2026-05-31',
        beforeFirst: '2026-04-06',
        beforeLast: '2026-05-03',
      }),
    ).toBe('solid: 4 May – 31 May · hatched: 6 Apr – 3 May');
  });
});
