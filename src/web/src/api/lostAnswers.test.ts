// @vitest-environment jsdom
import { afterEach, describe, expect, it, vi } from 'vitest';
import { api } from './client';
import { newRequestId, whatBecameOf } from './lostAnswers';

const said = (status: number, body: object) => ({
  ...(status < 300 ? { data: body } : { error: body }),
  response: new Response(null, { status }),
});

/** A server that gives these answers one after the other; an error is no answer at all. */
function serverThat(...answers: (ReturnType<typeof said> | Error)[]) {
  return vi.spyOn(api, 'GET').mockImplementation(() => {
    const next = answers.shift() ?? new Error('asked too often');
    return (next instanceof Error ? Promise.reject(next) : Promise.resolve(next)) as never;
  });
}

afterEach(() => vi.restoreAllMocks());

describe('a command whose answer was lost', () => {
  it('is asked about until the server is back, and was done', async () => {
    const asked = serverThat(
      new TypeError('refused'),
      said(503, {}),
      said(200, { stepId: 7, label: 'Raise', items: 3 }),
    );
    const result = await whatBecameOf(1, '5', false, 1);
    expect(result.items).toBe(3);
    expect(asked).toHaveBeenCalledTimes(3);
  });

  it('was not done when the server knows nothing of it', async () => {
    serverThat(said(404, {}));
    await expect(whatBecameOf(1, '5', false, 1)).rejects.toThrow('Nothing was changed; do it again.');
  });

  it('was not done when it was given up in time', async () => {
    serverThat(said(404, {}));
    await expect(whatBecameOf(1, '5', true, 1)).rejects.toThrow('Given up. Nothing was changed.');
  });

  it('is not asked about for ever when the person may not know', async () => {
    const asked = serverThat(said(401, { title: 'Sign in' }));
    await expect(whatBecameOf(1, '5', false, 1)).rejects.toThrow('Sign in');
    expect(asked).toHaveBeenCalledOnce();
  });

  it('has a name of its own', () => {
    expect(newRequestId()).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-4[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/);
    expect(newRequestId()).not.toBe(newRequestId());
  });
});
