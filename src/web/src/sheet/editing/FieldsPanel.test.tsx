// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { ApiProblem, type Command } from '../../api/client';
import { fieldOf, keyword, Within } from '../../testing/Within';
import type { OnConflict } from '../useRowCommand';
import { FieldsPanel } from './FieldsPanel';

const page = [fieldOf('keyword', 'landingPage')];
const sent = vi.hoisted(() => vi.fn<(account: number, command: Command) => Promise<never>>());
vi.mock('../../api/postCommand', () => ({ postCommand: sent }));

const panel = (landingPage: string, version = 3, onConflict: OnConflict = vi.fn<OnConflict>()) => (
  <FieldsPanel row={keyword(1, { landingPage }, { version })} fields={page} onConflict={onConflict} />
);

const field = () => screen.getByLabelText<HTMLInputElement>('Landing page');
const type = (value: string) => fireEvent.change(field(), { target: { value } });

afterEach(() => {
  cleanup();
  sent.mockReset();
});

describe('the settings of one item', () => {
  it('show what a colleague made of them meanwhile', () => {
    const { rerender } = render(panel('https://a.example'), { wrapper: Within });
    rerender(panel('https://b.example'));
    expect(field().value).toBe('https://b.example');
  });

  it('keep what is being typed when a colleague changes the same', () => {
    const { rerender } = render(panel('https://a.example'), { wrapper: Within });
    type('https://mine.example');
    rerender(panel('https://b.example'));
    expect(field().value).toBe('https://mine.example');
  });

  it('are sent as typed over the version that was there when the typing began', () => {
    sent.mockReturnValue(new Promise(() => undefined));
    const { rerender } = render(panel('https://a.example', 3), { wrapper: Within });
    type('https://mine.example');
    rerender(panel('https://b.example', 4));
    fireEvent.blur(field());
    return waitFor(() =>
      expect(sent.mock.calls[0]?.[1]).toMatchObject({ seen: [{ kind: 'keyword', id: 1, version: 3 }] }),
    );
  });

  it('tell of a conflict also after the person went on to another item', async () => {
    const onConflict = vi.fn<OnConflict>();
    sent.mockRejectedValue(new ApiProblem(409, 'Changed meanwhile.', {}));
    const { rerender } = render(panel('https://a.example', 3, onConflict), { wrapper: Within });
    type('https://mine.example');
    fireEvent.blur(field());
    rerender(<p>another</p>);
    await waitFor(() => expect(onConflict).toHaveBeenCalled());
  });
});
