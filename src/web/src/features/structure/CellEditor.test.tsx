import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { AccountSummary, Command, SheetRow } from '../../api/client';
import { CellEditor } from './CellEditor';
import type { EditField } from './columns';

const account: AccountSummary = {
  id: 1,
  name: 'Tarn & Fell Pianos',
  currency: 'GBP',
  currencySign: '£',
  minorUnits: 2,
  timeZone: 'Europe/London',
  networkName: 'Ostrel Search',
};

const keyword: SheetRow = {
  kind: 'keyword',
  id: 7,
  name: 'piano tuner',
  match: 'phrase',
  state: 'running',
  maxCpc: 1.1,
  campaignId: 1,
  campaign: 'Tuning',
  adGroupId: 2,
  adGroup: 'Piano tuner',
  labels: [],
  version: 3,
  change: 'none',
  review: 'approved',
  needs: [],
};

const items = [{ kind: 'keyword', id: 7 }];

function edit(field: EditField, row = keyword) {
  const onSave = vi.fn<(command: Command | null) => void>();
  const onLeave = vi.fn<() => void>();
  render(
    <CellEditor row={row} field={field} account={account} problem={null} onSave={onSave} onLeave={onLeave} />,
  );
  return { onSave, onLeave, input: screen.getByLabelText('Edit piano tuner') };
}

function enter(input: HTMLElement, text: string) {
  fireEvent.change(input, { target: { value: text } });
  fireEvent.keyDown(input, { key: 'Enter' });
}

afterEach(cleanup);

describe('editing a cell', () => {
  it('sets an amount, with a decimal comma too', () => {
    const { onSave, input } = edit('maxCpc');
    enter(input, '£1,35');
    expect(onSave).toHaveBeenCalledWith({
      type: 'changeAmount',
      items,
      field: 'maxCpc',
      operation: 'set',
      value: 1.35,
    });
  });

  it('takes an emptied max CPC for one to be inherited', () => {
    const { onSave, input } = edit('maxCpc');
    enter(input, '');
    expect(onSave).toHaveBeenCalledWith({
      type: 'changeAmount',
      items,
      field: 'maxCpc',
      operation: 'inherit',
      value: 0,
    });
  });

  it('says so when an amount cannot be read, and keeps what was typed', () => {
    const { onSave, input } = edit('maxCpc');
    enter(input, 'lots');
    expect(onSave).not.toHaveBeenCalled();
    expect(screen.getByRole('alert').textContent).toContain('1.20');
    expect((input as HTMLInputElement).value).toBe('lots');
  });

  it('changes nothing when the name stays as it is', () => {
    const { onSave, input } = edit('name');
    enter(input, 'piano tuner');
    expect(onSave).toHaveBeenCalledWith(null);
  });

  it('sends a new wording as it was typed: the server reads the notation', () => {
    const { onSave, input } = edit('name');
    enter(input, '[piano tuner york]');
    expect(onSave).toHaveBeenCalledWith({
      type: 'setText',
      item: { kind: 'keyword', id: 7 },
      text: '[piano tuner york]',
    });
  });

  it('chooses a match type', () => {
    const { onSave, input } = edit('match');
    enter(input, 'exact');
    expect(onSave).toHaveBeenCalledWith({ type: 'setMatchType', items, match: 'exact' });
  });

  it('leaves everything as it was on Escape, also when the focus goes', () => {
    const { onSave, onLeave, input } = edit('maxCpc');
    fireEvent.change(input, { target: { value: '9' } });
    fireEvent.keyDown(input, { key: 'Escape' });
    fireEvent.blur(input);
    expect(onLeave).toHaveBeenCalledOnce();
    expect(onSave).not.toHaveBeenCalled();
  });

  it('saves once, though Enter is followed by losing the focus', () => {
    const { onSave, input } = edit('maxCpc');
    enter(input, '2');
    fireEvent.blur(input);
    expect(onSave).toHaveBeenCalledOnce();
  });
});
