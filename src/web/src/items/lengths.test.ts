import { describe, expect, it } from 'vitest';
import examples from '../testing/wideTexts.json';
import { lengthOf } from './values';

describe('lengths', () => {
  it.each(examples)('counts “$text” as the server does', ({ text, characters, wide }) => {
    expect(lengthOf(text, 1)).toBe(characters);
    expect(lengthOf(text, 2)).toBe(characters + wide);
  });
});
