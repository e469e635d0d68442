// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Schemas } from '../../api/client';
import { Within } from '../../testing/Within';
import { IntakePanel } from './IntakePanel';
import type { IntakeShown } from './intakeShown';

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
      problemPlace: 1,
      before: [],
    },
  ],
  cautions: [{ campaign: 'York', adGroup: 'Events', message: 'gets no keywords' }],
  confidence: [100, 80],
  sureFrom: 80,
  filledCells: [10, 10],
  rows: [
    { outcome: 'new', count: 104 },
    { outcome: 'edit', count: 3 },
    { outcome: 'twice', count: 1 },
    { outcome: 'refused', count: 1 },
  ],
  contradictions: [],
  bareKeywords: 0,
  bareMatchKnown: false,
  newPaused: false,
  newCampaigns: 4,
  done: null,
};

function show(change: Partial<Schemas['IntakeView']> = {}) {
  const onKeep = vi.fn<() => void>();
  const onColumns = vi.fn<(columns: Schemas['IntakeColumns']) => void>();
  const onShown = vi.fn<(shown: IntakeShown) => void>();
  render(
    <Within known={{ intakeColumns: columns }}>
      <IntakePanel
        intake={{ ...intake, ...change }}
        problem={null}
        busy={false}
        shown="all"
        onShown={onShown}
        onColumns={onColumns}
        onKeep={onKeep}
        onLeave={vi.fn<() => void>()}
        onFilled={vi.fn<() => void>()}
      />
    </Within>,
  );
  return { onKeep, onColumns, onShown };
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

  it('filters the rows by their counts', () => {
    const { onShown } = show();
    fireEvent.click(screen.getByRole('button', { name: '2 left out' }));
    expect(onShown).toHaveBeenCalledWith('leftOut');
  });

  it('says on the button itself how many filled cells are not used', () => {
    show({ columns: ['campaign', ''], filledCells: [10, 36] });
    expect(screen.getByRole('button', { name: 'Bring in 107 items, 36 filled cells unused' })).toBeTruthy();
  });

  it('asks once what bare keywords are, before anything is brought in', () => {
    const { onKeep, onColumns } = show({ bareKeywords: 3 });
    fireEvent.click(screen.getByRole('button', { name: 'First: what are 3 bare keywords?' }));
    expect(onKeep).not.toHaveBeenCalled();
    expect(document.activeElement?.getAttribute('type')).toBe('radio');
    fireEvent.click(screen.getByLabelText(/^exact/));
    expect(onColumns.mock.calls[0]?.[0]).toMatchObject({ bareMatch: 'exact', bareMatchChosen: true });
  });

  it('does not ask again what the account has said', () => {
    const { onKeep } = show({ bareKeywords: 3, bareMatchKnown: true });
    fireEvent.click(screen.getByRole('button', { name: 'Bring in 107 items' }));
    expect(onKeep).toHaveBeenCalledOnce();
  });

  it('names both of two rows that contradict each other', () => {
    show({
      contradictions: [
        {
          kind: 'campaign',
          name: 'York',
          field: 'daily budget',
          firstRow: 2,
          first: '£25.00',
          otherRow: 9,
          other: '£40.00',
        },
      ],
    });
    expect(screen.getByText(/daily budget £25.00 in row 2, £40.00 in row 9/)).toBeTruthy();
  });
});
