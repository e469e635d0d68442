import { describe, expect, it } from 'vitest';
import { added } from './template';

describe('a variable that is chosen', () => {
  it('begins a template with the page', () => {
    expect(added('', 'device', 0)).toBe('{+page}{?device}');
  });

  it('comes into the query that is there', () => {
    expect(added('{+page}{?device}', 'match', 0)).toBe('{+page}{?device,match}');
    expect(added('{+page}?a=1', 'match', 99)).toBe('{+page}?a=1{&match}');
  });

  it('puts the page first, and only once', () => {
    expect(added('?a=1', 'page', 2)).toBe('{+page}?a=1');
    expect(added('{+page}?a=1', 'page', 2)).toBe('{+page}?a=1');
  });
});
