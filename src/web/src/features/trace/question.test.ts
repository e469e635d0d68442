import { expect, it } from 'vitest';
import { questionOf } from './question';

it('reads the question out of an address', () => {
  expect(questionOf(new URLSearchParams('text=+piano+tuner+&device=tablet&site=partners&copy=live'))).toEqual(
    {
      text: 'piano tuner',
      device: 'tablet',
      site: 'partners',
      copy: 'live',
    },
  );
});

it('asks the usual where the address says nothing or what it does not know', () => {
  expect(questionOf(new URLSearchParams('device=watch'))).toEqual({
    text: '',
    device: 'phone',
    site: 'search',
    copy: 'working',
  });
});
