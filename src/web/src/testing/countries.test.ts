import countries from 'i18n-iso-countries';
import english from 'i18n-iso-countries/langs/en.json';
import { describe, expect, it } from 'vitest';
import known from '../../../Fendrik.Core/Places/countries.json';

countries.registerLocale(english);

describe('the countries that Core knows', () => {
  // ISO 3166-1, as the package i18n-iso-countries carries it. Made by: npm run countries.
  it('are all of ISO 3166-1, by their codes of two letters', () => {
    const codes = Object.keys(countries.getAlpha2Codes()).filter((code) => code !== 'XK');
    expect(Object.keys(known).sort()).toEqual(codes.sort());
  });

  it.each(Object.entries(known))('%s is %s', (code, name) => {
    expect(countries.getName(code, 'en')).toBe(name);
  });
});
