// @vitest-environment jsdom
import { cleanup, render, screen, within } from '@testing-library/react';
import { afterEach, describe, expect, it } from 'vitest';
import type { Schemas } from '../api/client';
import { Within } from '../testing/Within';
import { ChangeLines } from './ChangeLines';

const edited: Schemas['ChangeLine'] = {
  kind: 'keyword',
  id: 1,
  name: 'piano tuner',
  campaign: 'Tuning',
  adGroup: 'Piano tuner',
  change: 'edited',
  differences: [
    { field: 'Match type', before: 'phrase', after: 'exact', inPicture: false },
    { field: 'Max CPC', before: null, after: '£1.20', inPicture: false },
  ],
  reviewReason: null,
  isHeld: false,
};

afterEach(cleanup);

describe('a list of changes', () => {
  it('shows each field before and after, with “—” for nothing', () => {
    render(<ChangeLines lines={[edited]} />, { wrapper: Within });
    const rows = screen.getAllByRole('row').slice(1);
    expect(rows).toHaveLength(2);
    expect(
      within(rows[1] as HTMLElement)
        .getAllByRole('cell')
        .map((cell) => cell.textContent),
    ).toEqual(['Max CPC', '—', '£1.20']);
  });

  it('shows a new ad as an ad, with what its picture does not say', () => {
    const ad = {
      headlines: ['Tuned At Home'],
      descriptions: [],
      displayPath: [],
      landingPage: null,
      business: null,
      calls: null,
    };
    const made = {
      ...edited,
      kind: 'textAd' as const,
      change: 'new' as const,
      ad,
      differences: [
        {
          field: 'Headline',
          before: null,
          after: 'Tuned At Home',
          lengths: [{ text: 'Tuned At Home', length: 13, longest: 32 }],
          inPicture: true,
        },
        { field: 'Device preference', before: null, after: 'phone', inPicture: false },
      ],
    };
    render(<ChangeLines lines={[made]} picture={(each) => <i>{each.headlines.join()}</i>} />, {
      wrapper: Within,
    });
    expect(screen.getByText('Tuned At Home', { selector: 'i' })).toBeTruthy();
    expect(screen.getByText('Device preference: phone')).toBeTruthy();
  });

  it('says of a new item what it is in one line', () => {
    const made = {
      ...edited,
      change: 'new' as const,
      differences: [{ field: 'Max CPC', before: null, after: '£1.20', inPicture: false }],
    };
    render(<ChangeLines lines={[made]} />, { wrapper: Within });
    expect(screen.getByText('new, max CPC £1.20')).toBeTruthy();
  });

  it('says where an item is when it is asked to, and why it was refused last time', () => {
    render(<ChangeLines lines={[{ ...edited, reviewReason: 'Not this one.' }]} showPlace />, {
      wrapper: Within,
    });
    expect(screen.getByText('Tuning / Piano tuner')).toBeTruthy();
    expect(screen.getByText('Refused last time: Not this one.')).toBeTruthy();
  });

  it('measures texts that the network limits and says which are too long', () => {
    const lengths = [
      { text: 'Piano Tuning', length: 12, longest: 30 },
      { text: 'A Headline That Is Far Too Long', length: 31, longest: 30 },
    ];
    const texts = {
      ...edited,
      differences: [
        { field: 'Headline', before: 'Old', after: 'Piano Tuning | A Headline…', lengths, inPicture: true },
      ],
    };
    render(<ChangeLines lines={[texts]} />, { wrapper: Within });
    expect(screen.getByText('12 / 30')).toBeTruthy();
    expect(screen.getByText('■ 31 / 30, 1 too long')).toBeTruthy();
  });

  it('says what is held back', () => {
    render(<ChangeLines lines={[{ ...edited, isHeld: true }]} />, { wrapper: Within });
    expect(screen.getByText('held back')).toBeTruthy();
  });

  it('names the change for those who do not see the pennant', () => {
    render(<ChangeLines lines={[{ ...edited, change: 'removed', differences: [] }]} />, { wrapper: Within });
    expect(screen.getByRole('img', { name: 'removed' })).toBeTruthy();
    expect(screen.getByText('removed')).toBeTruthy();
  });
});
