import { describe, expect, it } from 'vitest';
import known from '../../../Fendrik.Core/Accounts/languages.json';

const names = new Intl.DisplayNames(['en'], { type: 'language', fallback: 'none' });

describe('the languages that Core knows', () => {
  // Unicode's CLDR, as this Node carries it; made by: npm run languages.
  it.each(Object.entries(known))('%s is %s', (code, name) => {
    expect(names.of(code)).toBe(name);
  });

  // ISO 639-1 has 183 codes; quoted from memory.
  it('are as many as ISO 639-1 has', () => {
    expect(Object.keys(known)).toHaveLength(183);
  });
});
