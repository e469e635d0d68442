import { expect, it } from 'vitest';
import { costAxis } from './costAxis';

it('puts twice as dear as far from anywhere', () => {
  const axis = costAxis([2, 40, null]);
  expect(axis).not.toBeNull();
  if (!axis) return;
  expect(axis.at(4) - axis.at(2)).toBeCloseTo(axis.at(40) - axis.at(20));
  expect(axis.at(2)).toBeGreaterThan(0);
  expect(axis.at(40)).toBeLessThan(1);
  expect(axis.ticks).toEqual([2, 5, 10, 20]);
});

it('is none without costs', () => expect(costAxis([null, 0])).toBeNull());
