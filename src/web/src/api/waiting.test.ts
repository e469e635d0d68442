// @vitest-environment jsdom
import { afterEach, describe, expect, it, vi } from 'vitest';
import { toast } from 'sonner';
import { api, problemOf } from './client';
import { aheadInWords, sendNamed } from './waiting';

const ahead = (person: string | null, doing: string, working = true) => ({
  person,
  doing,
  since: '2026-05-12T09:00:00Z',
  working,
});

afterEach(() => {
  vi.useRealTimers();
  vi.restoreAllMocks();
});

describe('a request that waits for somebody else', () => {
  it('says who is at work and how many wait as well', () => {
    expect(
      aheadInWords([ahead('Callum Reid', 'bringing in a list'), ahead('Una', 'changing items', false)]),
    ).toBe('Waiting: Callum Reid is bringing in a list, and 1 more before you.');
  });

  it('is told and can be given up, with nothing changed', async () => {
    vi.useFakeTimers();
    vi.spyOn(api, 'GET').mockImplementation(((path: string) =>
      Promise.resolve(
        path.endsWith('/ahead')
          ? { data: [ahead('Callum Reid', 'copying items')], response: new Response() }
          : { error: {}, response: new Response(null, { status: 404 }) },
      )) as never);
    const shown = vi.spyOn(toast, 'loading').mockImplementation(() => 1);
    const request = sendNamed(
      1,
      (_, signal) =>
        new Promise((_, reject) => signal.addEventListener('abort', () => reject(problemOf(0, null)))),
    );
    const outcome = expect(request).rejects.toThrow('Given up. Nothing was changed.');

    await vi.advanceTimersByTimeAsync(1_500);
    expect(shown.mock.calls[0]?.[0]).toBe('Waiting: Callum Reid is copying items.');
    const action = shown.mock.calls[0]?.[1]?.action as unknown as { onClick: () => void };
    action.onClick();
    await outcome;
  });

  it('is not told when it is quick', async () => {
    const shown = vi.spyOn(toast, 'loading');
    await sendNamed(1, () => Promise.resolve({ items: 1 } as never));
    expect(shown).not.toHaveBeenCalled();
  });

  it('goes out after what this page sent before it, also when that was refused', async () => {
    const sent: string[] = [];
    let refuse: (reason: Error) => void = () => undefined;
    const edit = sendNamed(2, () => {
      sent.push('edit');
      return new Promise((_, reject) => (refuse = reject));
    });
    const undo = sendNamed(2, () => {
      sent.push('undo');
      return Promise.resolve({ items: 1 } as never);
    });
    await Promise.resolve();
    expect(sent).toEqual(['edit']);

    refuse(problemOf(422, null));
    await expect(edit).rejects.toThrow();
    await undo;
    expect(sent).toEqual(['edit', 'undo']);
  });
});
