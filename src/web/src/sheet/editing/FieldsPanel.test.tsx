import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { fieldOf, keyword, Within } from '../../testing/Within';
import { FieldsPanel } from './FieldsPanel';

const page = [fieldOf('keyword', 'landingPage')];

const panel = (landingPage: string) => (
  <FieldsPanel row={keyword(1, { landingPage })} fields={page} onConflict={vi.fn<() => void>()} />
);

const typed = () => screen.getByLabelText<HTMLInputElement>('Landing page');

afterEach(cleanup);

describe('the settings of one item', () => {
  it('show what a colleague made of them meanwhile', () => {
    const { rerender } = render(panel('https://a.example'), { wrapper: Within });
    rerender(panel('https://b.example'));
    expect(typed().value).toBe('https://b.example');
  });

  it('keep what is being typed when a colleague changes the same', () => {
    const { rerender } = render(panel('https://a.example'), { wrapper: Within });
    fireEvent.change(typed(), { target: { value: 'https://mine.example' } });
    rerender(panel('https://b.example'));
    expect(typed().value).toBe('https://mine.example');
  });
});
