// @vitest-environment jsdom
import { act, cleanup, renderHook } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { usePreview } from './usePreview';

interface Asked {
  signal: AbortSignal;
  answer: (text: string) => Promise<void>;
}

/** A server that answers when the test says so. */
function ask(first: string) {
  const asked: Asked[] = [];
  const look = renderHook(
    ({ key }) =>
      usePreview(
        key,
        (signal) =>
          new Promise<string>((done) => {
            asked.push({ signal, answer: (text) => act(() => (done(text), Promise.resolve())) });
          }),
        200,
      ),
    { initialProps: { key: first } },
  );
  const rest = () => act(() => vi.advanceTimersByTimeAsync(200));
  return { asked, look, rest };
}

beforeEach(() => vi.useFakeTimers());
afterEach(() => {
  cleanup();
  vi.useRealTimers();
});

describe('a preview', () => {
  it('is asked for once typing rests', async () => {
    const { asked, look, rest } = ask('p');
    look.rerender({ key: 'pi' });
    look.rerender({ key: 'pia' });
    await rest();
    expect(asked).toHaveLength(1);
  });

  it('is asked for one at a time: the one under way is given up first', async () => {
    const { asked, look, rest } = ask('p');
    await rest();
    look.rerender({ key: 'pi' });
    await rest();
    expect([asked.length, asked[0]?.signal.aborted]).toEqual([1, true]);
    await asked[0]?.answer('old');
    await rest();
    expect(asked).toHaveLength(2);
  });

  it('of before never stands for the one that is asked now', async () => {
    const { asked, look, rest } = ask('p');
    await rest();
    look.rerender({ key: 'pi' });
    await asked[0]?.answer('old');
    await rest();
    expect([look.result.current.data, look.result.current.fresh]).toEqual([undefined, false]);
    await asked[1]?.answer('new');
    expect([look.result.current.data, look.result.current.fresh]).toEqual(['new', true]);
  });

  it('is asked for anew when the account has moved on', async () => {
    const { asked, look, rest } = ask('p');
    await rest();
    await asked[0]?.answer('then');
    act(() => look.result.current.renew());
    expect(look.result.current.fresh).toBe(false);
    await rest();
    await asked[1]?.answer('now');
    expect(look.result.current.data).toBe('now');
  });
});
