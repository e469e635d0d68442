// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { AccountContext } from '../../api/account';
import { KindsContext } from '../../api/kinds';
import { account, kinds } from '../../testing/Within';
import { choose } from '../../testing/choose';
import type { SheetField } from './conditions';
import { FilterBar } from './FilterBar';
import { lookOf, plainLook, queryOf, type Look } from './look';

const fields: SheetField[] = [
  { name: 'name', label: 'Name or words', type: 'text', choices: [] },
  { name: 'cost', label: 'Cost', type: 'amount', choices: [] },
  {
    name: 'match',
    label: 'Match type',
    type: 'choice',
    choices: [
      { key: 'exact', name: 'exact', number: 1 },
      { key: 'phrase', name: 'phrase', number: 2 },
    ],
  },
];

function show(look: Look) {
  const onLook = vi.fn<(look: Look) => void>();
  const onAllSteps = vi.fn<() => void>();
  const onShowAll = vi.fn<() => void>();
  const queries = new QueryClient();
  queries.setQueryData([1, 'sheetFields'], fields);
  const session = { person: 'Morag Kerr', initials: 'MK', token: '', accounts: [account] };
  render(
    <QueryClientProvider client={queries}>
      <AccountContext value={{ session, account }}>
        <KindsContext value={kinds}>
          <FilterBar
            view="keyword"
            look={look}
            onLook={onLook}
            step="Only what one step touched"
            onAllSteps={onAllSteps}
            onShowAll={onShowAll}
          />
        </KindsContext>
      </AccountContext>
    </QueryClientProvider>,
  );
  return { onLook, onAllSteps, onShowAll };
}

const spent: Look = {
  ...plainLook,
  conditions: [
    { field: 'cost', test: 'above', values: ['20'] },
    { field: 'match', test: 'is', values: ['exact'] },
  ],
};

afterEach(cleanup);

describe('the filter of the sheet', () => {
  it('takes one condition out and leaves the others', () => {
    const { onLook } = show(spent);
    fireEvent.click(screen.getByRole('button', { name: 'Drop the condition: Cost > 20' }));
    expect(onLook.mock.calls[0]?.[0].conditions).toEqual([spent.conditions[1]]);
  });

  it('adds a condition on several values', () => {
    const { onLook } = show(plainLook);
    fireEvent.click(screen.getByRole('button', { name: 'Condition…' }));
    fireEvent.change(screen.getByLabelText('Value'), { target: { value: 'hire | rental' } });
    fireEvent.click(screen.getByRole('button', { name: 'Filter' }));
    expect(onLook.mock.calls[0]?.[0].conditions).toEqual([
      { field: 'name', test: 'contains', values: ['hire ', 'rental'] },
    ]);
  });

  it('keeps a regular expression whole, bars and all', () => {
    const { onLook } = show(plainLook);
    fireEvent.click(screen.getByRole('button', { name: 'Condition…' }));
    choose('Test', 'fits the expression');
    fireEvent.change(screen.getByLabelText('Value'), { target: { value: '^(hire|rental)' } });
    fireEvent.click(screen.getByRole('button', { name: 'Filter' }));
    expect(onLook.mock.calls[0]?.[0].conditions[0]?.values).toEqual(['^(hire|rental)']);
  });

  it('takes a part of the text over when typing rests, and gives the keyboard to the sheet on Enter', () => {
    const { onLook } = show(plainLook);
    const sheet = document.createElement('div');
    sheet.tabIndex = 0;
    sheet.setAttribute('data-home', '');
    document.body.append(sheet);
    const field = screen.getByLabelText('Filter by text');
    fireEvent.change(field, { target: { value: 'piano' } });
    expect(onLook).not.toHaveBeenCalled();
    fireEvent.keyDown(field, { key: 'Enter' });
    expect(onLook).toHaveBeenCalledExactlyOnceWith({ ...plainLook, text: 'piano' }, true);
    expect(document.activeElement).toBe(sheet);
    sheet.remove();
  });

  it('waits for a value before it filters', () => {
    show(plainLook);
    fireEvent.click(screen.getByRole('button', { name: 'Condition…' }));
    expect((screen.getByRole('button', { name: 'Filter' }) as HTMLButtonElement).disabled).toBe(true);
  });

  it('offers choices to tick where a field has few', () => {
    const { onLook } = show(plainLook);
    fireEvent.click(screen.getByRole('button', { name: 'Condition…' }));
    choose('Field', 'Match type');
    fireEvent.click(screen.getByLabelText('phrase'));
    fireEvent.click(screen.getByRole('button', { name: 'Filter' }));
    expect(onLook.mock.calls[0]?.[0].conditions).toEqual([
      { field: 'match', test: 'is', values: ['phrase'] },
    ]);
  });

  it('shows all again, whatever was filtered', () => {
    const { onShowAll } = show({ ...spent, text: 'piano', figureDays: 7 });
    fireEvent.click(screen.getByRole('button', { name: 'Show all' }));
    expect(onShowAll).toHaveBeenCalledOnce();
  });
});

describe('a look', () => {
  it('comes back from a saved view as it was', () => {
    const place = {
      campaignId: null,
      adGroupId: null,
      stepId: null,
    };
    const look: Look = {
      ...spent,
      text: 'hire',
      sort: { by: 'cost', descending: true },
      columns: { keyword: ['name', 'cost'] },
    };
    const saved = { request: queryOf(look, 'keyword', place), columns: ['name', 'cost'] };
    expect(lookOf(saved, plainLook)).toEqual({ view: 'keyword', look });
  });
});
