import { expect, it } from 'vitest';
import { questionOf } from './question';

it('reads the question out of an address', () => {
  expect(
    questionOf(
      new URLSearchParams(
        'text=+piano+tuner+&device=tablet&site=partners&copy=live&place=york&hour=18&page=a.example&audiences=parents&language=Welsh',
      ),
    ),
  ).toEqual({
    text: 'piano tuner',
    device: 'tablet',
    site: 'partners',
    copy: 'live',
    place: 'york',
    hour: 18,
    page: 'a.example',
    audiences: ['parents'],
    language: 'Welsh',
  });
});

it('asks the usual where the address says nothing or what it does not know', () => {
  expect(questionOf(new URLSearchParams('device=watch&hour=25'))).toEqual({
    text: '',
    device: 'phone',
    site: 'search',
    copy: 'working',
    place: null,
    hour: null,
    page: null,
    audiences: [],
    language: null,
  });
});
