import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { AccountSummary, Command, SheetRow } from '../../api/client';
import { AccountContext } from '../../app/account';
import { selectRows } from './selection';
import { SelectionPanel, type BulkEdit } from './SelectionPanel';

const account: AccountSummary = {
  id: 1,
  name: 'Tarn & Fell Pianos',
  currency: 'GBP',
  currencySign: '£',
  minorUnits: 2,
  timeZone: 'Europe/London',
  networkName: 'Ostrel Search',
};

function keyword(id: number, maxCpc: number | null, more: Partial<SheetRow> = {}): SheetRow {
  return {
    kind: 'keyword',
    id,
    name: `keyword ${id}`,
    match: 'phrase',
    state: 'running',
    maxCpc,
    campaignId: 1,
    campaign: 'Tuning',
    adGroupId: 2,
    adGroup: 'Piano tuner',
    labels: [],
    version: 3,
    change: 'none',
    review: 'approved',
    needs: [],
    ...more,
  };
}

function select(...rows: SheetRow[]) {
  const onPreview = vi.fn<(command: Command) => void>();
  const session = { person: 'Morag Kerr', initials: 'MK', token: '', accounts: [account] };
  render(
    <QueryClientProvider client={new QueryClient()}>
      <AccountContext value={{ session, account }}>
        <SelectionPanel
          selection={selectRows(rows)}
          onPreview={onPreview}
          onOpenAd={vi.fn<(row: SheetRow) => void>()}
          onBulk={vi.fn<(what: BulkEdit) => void>()}
        />
      </AccountContext>
    </QueryClientProvider>,
  );
  return onPreview;
}

function amount(text: string) {
  fireEvent.change(screen.getByLabelText('New max cpc'), { target: { value: text } });
  fireEvent.click(screen.getByRole('button', { name: 'Set' }));
}

const items = [
  { kind: 'keyword', id: 1 },
  { kind: 'keyword', id: 2 },
];

afterEach(cleanup);

describe('what is selected', () => {
  it('is named and counted', () => {
    select(keyword(1, 1), keyword(2, 2));
    expect(screen.getByRole('heading', { name: '2 keywords' })).toBeTruthy();
    expect(screen.getByText('£1.00 to £2.00')).toBeTruthy();
  });

  it.each([
    ['1.20', 'set', 1.2],
    ['+0,10', 'addAmount', 0.1],
    ['-0.10', 'addAmount', -0.1],
    ['−10%', 'addPercent', -10],
    ['+15 %', 'addPercent', 15],
  ])('is given the bid that “%s” says, after a look at what would change', (text, operation, value) => {
    const onPreview = select(keyword(1, 1), keyword(2, 2));
    amount(text);
    expect(onPreview).toHaveBeenCalledWith({
      type: 'changeAmount',
      items,
      field: 'maxCpc',
      operation,
      value,
    });
  });

  it('is left alone by an amount that cannot be read', () => {
    const onPreview = select(keyword(1, 1), keyword(2, 2));
    amount('a bit more');
    expect(onPreview).not.toHaveBeenCalled();
    expect(screen.getByText('Write 1.20 to set, +0.10 to raise, −10% to lower.')).toBeTruthy();
  });

  it('is shown before it is removed, even when it is one', () => {
    const onPreview = select(keyword(1, 1));
    fireEvent.click(screen.getByRole('button', { name: 'Remove…' }));
    expect(onPreview).toHaveBeenCalledWith({ type: 'remove', items: [items[0]] });
  });

  it('says whose bid holds when a keyword has none of its own', () => {
    select(keyword(1, null, { inheritedMaxCpc: 2.1 }));
    expect(screen.getByText('the ad group’s')).toBeTruthy();
  });

  it('says what one item needs and why', () => {
    select(
      keyword(1, 1, {
        needs: [
          {
            weight: 'caution',
            message: 'blocked by a negative',
            detail: 'Remove one of the two.',
            field: null,
          },
        ],
      }),
    );
    expect(screen.getByText('Remove one of the two.')).toBeTruthy();
  });

  it('may be nothing: then the panel says how to select', () => {
    select();
    expect(screen.getByRole('heading', { name: 'Nothing selected' })).toBeTruthy();
  });
});
