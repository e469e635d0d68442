// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Command } from '../../api/client';
import '../../testing/choose';
import { account, fieldOf, keyword } from '../../testing/Within';
import { CellEditor, type Then } from './CellEditor';

const row = keyword(7, { maxCpc: 1.1 });

function edit(name: string, problem: string | null = null, part?: number) {
  const onSave = vi.fn<(command: Command | null, then: Then) => void>();
  const onLeave = vi.fn<() => void>();
  render(
    <CellEditor
      row={row}
      field={fieldOf(part ? 'textAd' : 'keyword', name)}
      part={part}
      account={account}
      problem={problem}
      onSave={onSave}
      onLeave={onLeave}
    />,
  );
  return { onSave, onLeave, input: screen.getByLabelText('Edit keyword 7') };
}

function cell(field: string, text: string) {
  return { type: 'setCells', cells: [{ item: { kind: 'keyword', id: 7 }, field, text, part: null }] };
}

function enter(input: HTMLElement, text: string) {
  fireEvent.change(input, { target: { value: text } });
  fireEvent.keyDown(input, { key: 'Enter' });
}

afterEach(cleanup);

describe('editing a cell', () => {
  it.each(['£1,35', '+10%', '−0.10', '1,234', ''])(
    'sends “%s” as it was typed: the server reads it',
    (text) => {
      const { onSave, input } = edit('maxCpc');
      enter(input, text);
      expect(onSave).toHaveBeenCalledWith(cell('maxCpc', text), 'down');
    },
  );

  it('shows why the server did not take it, and keeps what was typed', () => {
    const { input } = edit('maxCpc', 'Max CPC “lots” is not an amount.');
    expect(screen.getByRole('alert').textContent).toContain('not an amount');
    expect(input.getAttribute('aria-invalid')).toBe('true');
  });

  it('changes nothing when all stays as it is', () => {
    const { onSave, input } = edit('text');
    enter(input, 'keyword 7');
    expect(onSave).toHaveBeenCalledWith(null, 'down');
  });

  it('chooses a match type by its name', () => {
    const { onSave, input } = edit('match');
    fireEvent.change(input, { target: { value: 'all' } });
    fireEvent.keyDown(input, { key: 'Enter' });
    expect(onSave).toHaveBeenCalledWith(cell('match', 'all words'), 'down');
  });

  it.each([
    ['Tab', false, 'right'],
    ['Tab', true, 'left'],
  ])('%s keeps the edit and goes on sideways (Shift: %s)', (key, shiftKey, then) => {
    const { onSave, input } = edit('maxCpc');
    fireEvent.change(input, { target: { value: '2' } });
    fireEvent.keyDown(input, { key, shiftKey });
    expect(onSave).toHaveBeenCalledWith(cell('maxCpc', '2'), then);
  });

  it('changes one headline of an ad and says which', () => {
    const { onSave, input } = edit('headlines', null, 2);
    enter(input, 'Call Now');
    expect(onSave.mock.calls[0]?.[0]).toMatchObject({ cells: [{ field: 'headlines', part: 2 }] });
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

  it('leaves the keys to the page once it is kept, so that undo is not lost while the answer is awaited', () => {
    const { input } = edit('maxCpc');
    const heard = vi.fn<(event: KeyboardEvent) => void>();
    window.addEventListener('keydown', heard);
    enter(input, '2');
    expect(heard).not.toHaveBeenCalled();
    fireEvent.keyDown(input, { key: 'z', ctrlKey: true });
    window.removeEventListener('keydown', heard);
    expect(heard).toHaveBeenCalledOnce();
    expect((input as HTMLInputElement).readOnly).toBe(true);
  });
});
