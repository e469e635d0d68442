// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Command, Schemas } from '../../api/client';
import { Within } from '../../testing/Within';
import { ConflictsTable, EffectsTable, NeedlessTable } from './ReviewTables';

const figures = { impressions: 100, clicks: 10, cost: 4.3, conversions: 1, value: 0 } as Schemas['Figures'];

function negative(id: number, text: string): Schemas['NegativePlace'] {
  return {
    id,
    text,
    match: 'phrase',
    level: 'list',
    place: 'Not us',
    campaignId: null,
    adGroupId: null,
    listId: 9,
  };
}

const report: Schemas['NegativeReport'] = {
  negatives: 3,
  keywords: 120,
  conflictCount: 1,
  conflicts: [
    {
      negative: negative(1, 'near me'),
      keywords: 2,
      examples: [
        {
          id: 7,
          text: 'piano tuner near me',
          match: 'exact',
          campaign: 'Tuning',
          adGroup: 'Tuner',
          campaignId: 3,
          adGroupId: 4,
        },
      ],
      figures,
    },
  ],
  needlessCount: 2,
  needless: [
    { negative: negative(2, 'free lessons'), broader: negative(3, 'free') },
    { negative: negative(4, 'free piano'), broader: negative(3, 'free') },
  ],
  effects: [{ negative: negative(3, 'free'), terms: 2, examples: ['free piano', 'piano free'], figures }],
};

function show(Table: typeof ConflictsTable, data = report) {
  const onPreview = vi.fn<(command: Command) => void>();
  render(
    <Within>
      <Table report={data} onPreview={onPreview} />
    </Within>,
  );
  return onPreview;
}

afterEach(cleanup);

describe('the review of negatives', () => {
  it('leads to the keyword that is blocked', () => {
    show(ConflictsTable);
    expect(screen.getByRole('link', { name: 'piano tuner near me' }).getAttribute('href')).toBe(
      '/1/plan/structure?campaign=3&adGroup=4&focus=keyword:7',
    );
  });

  it('offers to remove the negative that blocks, after a look', () => {
    const onPreview = show(ConflictsTable);
    fireEvent.click(screen.getByRole('button', { name: 'Tick all 1' }));
    fireEvent.click(screen.getByRole('button', { name: 'Remove 1 negative…' }));
    expect(onPreview).toHaveBeenCalledWith({ type: 'remove', items: [{ kind: 'negativeKeyword', id: 1 }] });
  });

  it('removes all needless ones but those that are kept', () => {
    const onPreview = show(NeedlessTable);
    fireEvent.click(screen.getByLabelText('Tick free lessons'));
    fireEvent.click(screen.getByRole('button', { name: 'Remove 1 negative…' }));
    expect(onPreview).toHaveBeenCalledWith({ type: 'remove', items: [{ kind: 'negativeKeyword', id: 4 }] });
  });

  it('says what a negative would have saved and lost', () => {
    show(EffectsTable);
    expect(screen.getByText('£4.30')).toBeTruthy();
    expect(screen.getByText('2 searches: free piano, piano free')).toBeTruthy();
  });

  it('says how much was looked through when nothing was found', () => {
    show(ConflictsTable, { ...report, conflictCount: 0, conflicts: [] });
    expect(screen.getByText('3 negatives were held against 120 keywords.')).toBeTruthy();
  });
});
