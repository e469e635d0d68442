import { cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Schemas } from '../../api/client';
import { Within } from '../../testing/Within';
import { IntakePanel } from './IntakePanel';

const columns: Schemas['ColumnChoice'][] = [
  { name: 'campaign', label: 'Campaign', meaning: '', form: null, isName: false, isPlace: true },
  { name: 'keyword', label: 'Keyword', meaning: '', form: 'text', isName: true, isPlace: false },
];

const intake: Schemas['IntakeView'] = {
  id: 5,
  fileName: 'spring-list.tsv',
  bytes: 4000,
  state: 'ready',
  problem: null,
  hasHeader: true,
  headers: ['camp.', 'search words'],
  columns: ['campaign', 'keyword'],
  usedColumns: [0, 1],
  intent: 'addAndChange',
  emptyClears: false,
  remembered: false,
  defaultCampaign: null,
  defaultAdGroup: null,
  bareMatch: 'broad',
  negativeMatch: 'phrase',
  rowsRead: 10,
  encoding: null,
  stepId: null,
  counts: [
    { kind: 'campaign', outcome: 'new', count: 4 },
    { kind: 'keyword', outcome: 'new', count: 100 },
    { kind: 'keyword', outcome: 'edit', count: 3 },
    { kind: 'keyword', outcome: 'twice', count: 1 },
    { kind: 'keyword', outcome: 'refused', count: 1 },
  ],
  budgets: [
    {
      campaignKey: 'york',
      adGroupKey: '',
      campaign: 'York',
      adGroup: null,
      filled: null,
      filledText: null,
      keywords: 0,
    },
  ],
  maxCpcs: [],
  refused: [
    {
      rowNumber: 7,
      kind: 'keyword',
      outcome: 'refused',
      match: null,
      reason: 'an empty word after +',
      cells: ['York', '+piano +'],
    },
  ],
  cautions: [{ campaign: 'York', adGroup: 'Events', message: 'gets no keywords' }],
};

function show(change: Partial<Schemas['IntakeView']> = {}) {
  const onKeep = vi.fn<() => void>();
  const onColumns = vi.fn<(columns: Schemas['IntakeColumns']) => void>();
  render(
    <Within known={{ intakeColumns: columns }}>
      <IntakePanel
        intake={{ ...intake, ...change }}
        problem={null}
        busy={false}
        onColumns={onColumns}
        onKeep={onKeep}
        onLeave={vi.fn<() => void>()}
        onFilled={vi.fn<() => void>()}
      />
    </Within>,
  );
  return { onKeep, onColumns };
}

afterEach(cleanup);

describe('what would come in', () => {
  it('is counted by kind: new, edited, the same, left out', () => {
    show();
    const row = screen.getByRole('row', { name: /Keywords/ });
    expect(
      within(row)
        .getAllByRole('cell')
        .map((cell) => cell.textContent),
    ).toEqual(['100', '3', '0', '2']);
  });

  it('is brought in by a button that says how much', () => {
    const { onKeep } = show();
    fireEvent.click(screen.getByRole('button', { name: 'Bring in 107 items' }));
    expect(onKeep).toHaveBeenCalledOnce();
  });

  it('cannot be brought in when it is nothing', () => {
    show({ counts: [{ kind: 'keyword', outcome: 'same', count: 6 }] });
    expect(screen.getByRole('button', { name: 'Bring in 0 items' })).toHaveProperty('disabled', true);
  });

  it('says what is left out with its row, its words and the reason', () => {
    show();
    expect(screen.getByText(/Row 7/).textContent).toBe('Row 7 +piano +: an empty word after +');
  });

  it('asks for what is missing before publishing', () => {
    show();
    expect(screen.getByText('Missing, needed before publishing')).toBeTruthy();
    expect(screen.getByLabelText('Daily budget, 1 campaign')).toBeTruthy();
  });

  it('shows what was filled in with the digits of the currency', () => {
    show({
      budgets: [
        {
          campaignKey: 'york',
          adGroupKey: '',
          campaign: 'York',
          adGroup: null,
          filled: 25,
          filledText: '25.00',
          keywords: 0,
        },
      ],
    });
    expect(screen.getByText('Filled in here')).toBeTruthy();
    expect(screen.getByLabelText('Daily budget, 1 campaign')).toHaveProperty('value', '25.00');
  });

  it('takes a campaign for rows that name none', () => {
    const { onColumns } = show();
    const field = screen.getByLabelText('Campaign of rows without one');
    fireEvent.change(field, { target: { value: 'York' } });
    fireEvent.blur(field);
    expect(onColumns.mock.calls[0]?.[0].defaultCampaign).toBe('York');
  });
});
