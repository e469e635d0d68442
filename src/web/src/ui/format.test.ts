import { describe, expect, it } from 'vitest';
import { change, money, nothing, percent, plural, seconds, times, todayIn } from './format';

const pounds = { currencySign: '£', minorUnits: 2 };
const yen = { currencySign: '¥', minorUnits: 0 };

describe('figures in words', () => {
  it('writes an amount with the digits of its currency', () => {
    expect(money(1289.8, pounds)).toBe('£1,289.80');
    expect(money(130, yen)).toBe('¥130');
  });

  it('tells nothing from none', () => {
    expect(money(null, pounds)).toBe(nothing);
    expect(money(0, pounds)).toBe('£0.00');
  });

  it('writes how many times, and seconds, with nothing where nothing is known', () => {
    expect(times(1.2)).toBe('× 1.20');
    expect(times(null)).toBe(nothing);
    expect(seconds(2140)).toBe('2.1 s');
    expect(seconds(0)).toBe(nothing);
  });

  it('puts the minus in front of the sign of the currency', () => {
    expect(money(-2.95, pounds)).toBe('−£2.95');
  });

  it('writes a change with its sign, and none as such', () => {
    expect(change(0.352)).toBe('+35.2%');
    expect(change(-0.185)).toBe('−18.5%');
    expect(change(0)).toBe('0.0%');
    expect(change(null)).toBe(nothing);
  });

  it('writes a share as a percentage', () => {
    expect(percent(0.0561)).toBe('5.61%');
  });

  it('counts one and many', () => {
    expect(plural(1, 'change')).toBe('1 change');
    expect(plural(1200, 'change')).toBe('1,200 changes');
  });
});

describe('the day that it is', () => {
  it('is that of the place, not that of the machine', () => {
    const now = new Date('2026-05-12T23:30:00Z');
    expect(todayIn('Europe/London', now)).toBe('2026-05-13');
    expect(todayIn('America/New_York', now)).toBe('2026-05-12');
  });
});
