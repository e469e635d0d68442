import codes from 'currency-codes';
import { describe, expect, it } from 'vitest';
import known from '../../../Fendrik.Core/Accounts/currencies.json';

describe('the currencies that Core knows', () => {
  // ISO 4217, list one, as the package currency-codes carries it. Made by: npm run currencies.
  it.each(Object.entries(known))('%s has %i decimal places in ISO 4217', (code, digits) => {
    expect(codes.code(code)?.digits).toBe(digits);
  });
});
