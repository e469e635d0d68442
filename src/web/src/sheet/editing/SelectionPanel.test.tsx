// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Command, SheetRow } from '../../api/client';
import { keyword, Within } from '../../testing/Within';
import { selectRows } from '../selection';
import type { BulkEdit } from './bulk';
import { SelectionPanel } from './SelectionPanel';

const priced = (id: number, maxCpc: number) => keyword(id, { maxCpc });

function select(...rows: SheetRow[]) {
  const onPreview = vi.fn<(command: Command) => void>();
  render(
    <SelectionPanel
      selection={selectRows(rows)}
      onPreview={onPreview}
      onOpenItem={vi.fn<(row: SheetRow) => void>()}
      onBulk={vi.fn<(what: BulkEdit) => void>()}
      onConflict={vi.fn<() => void>()}
    />,
    { wrapper: Within },
  );
  return onPreview;
}

function amount(text: string) {
  fireEvent.change(screen.getByLabelText('New max CPC'), { target: { value: text } });
  fireEvent.click(screen.getByRole('button', { name: 'Set max CPC' }));
}

const items = [
  { kind: 'keyword', id: 1 },
  { kind: 'keyword', id: 2 },
];

afterEach(cleanup);

describe('what is selected', () => {
  it('is named and counted', () => {
    select(priced(1, 1), priced(2, 2));
    expect(screen.getByRole('heading', { name: '2 keywords' })).toBeTruthy();
    expect(screen.getByText('£1.00 to £2.00')).toBeTruthy();
  });

  it.each(['1.20', '+0,10', '−10%', 'a bit more'])(
    'is given “%s” as it was typed, after a look at what would change',
    (text) => {
      const onPreview = select(priced(1, 1), priced(2, 2));
      amount(text);
      expect(onPreview).toHaveBeenCalledWith({ type: 'setFields', items, values: { maxCpc: text } });
    },
  );

  it('is given the amount on Enter in “At least”, with the floor', () => {
    const onPreview = select(priced(1, 1), priced(2, 2));
    fireEvent.change(screen.getByLabelText('New max CPC'), { target: { value: '−20%' } });
    const floor = screen.getByLabelText('At least');
    fireEvent.change(floor, { target: { value: '0.30' } });
    fireEvent.submit(floor);
    expect(onPreview).toHaveBeenCalledWith({
      type: 'setFields',
      items,
      values: { maxCpc: '−20%' },
      bounds: { atLeast: '0.30' },
    });
  });

  it('can be raised where the bid is inherited', () => {
    const onPreview = select(
      keyword(1, {}, { inherited: { maxCpc: 1 } }),
      keyword(2, {}, { inherited: { maxCpc: 2 } }),
    );
    fireEvent.click(screen.getByRole('button', { name: 'Raise max CPC by 10%' }));
    expect(onPreview).toHaveBeenCalledWith({ type: 'setFields', items, values: { maxCpc: '+10%' } });
  });

  it('is shown before it is removed, even when it is one', () => {
    const onPreview = select(priced(1, 1));
    fireEvent.click(screen.getByRole('button', { name: 'Remove keyword 1…' }));
    expect(onPreview).toHaveBeenCalledWith({ type: 'remove', items: [items[0]] });
  });

  it('says who removed it and brings it back after a look', () => {
    const removal = {
      stepId: 7,
      label: 'Remove 1 keyword',
      person: 'Aled Rees',
      madeAt: '2026-03-20T10:00:00Z',
    };
    const onPreview = select(keyword(1, {}, { change: 'removed', removal }));
    expect(screen.getByText(/Aled Rees on 20 Mar.*Remove 1 keyword/)).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Pause' })).toBeNull();
    fireEvent.click(screen.getByRole('button', { name: 'Bring back…' }));
    expect(onPreview).toHaveBeenCalledWith({ type: 'bringBack', items: [items[0]] });
  });

  it('says whose bid holds when a keyword has none of its own', () => {
    select(keyword(1, {}, { inherited: { maxCpc: 2.1 } }));
    expect(screen.getByText('the ad group’s')).toBeTruthy();
  });

  it('says what one item needs and why', () => {
    select(
      keyword(
        1,
        {},
        {
          needs: [
            {
              weight: 'caution',
              message: 'blocked by a negative',
              detail: 'Remove one of the two.',
              field: null,
            },
          ],
        },
      ),
    );
    expect(screen.getByText('Remove one of the two.')).toBeTruthy();
  });

  it('may be nothing: then the panel says how to select', () => {
    select();
    expect(screen.getByRole('heading', { name: 'Nothing selected' })).toBeTruthy();
  });
});
