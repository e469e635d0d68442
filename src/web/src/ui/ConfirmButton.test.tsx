// @vitest-environment jsdom
import { act, cleanup, renderHook } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { useConfirmed } from './ConfirmButton';

function dialog(first: Partial<Parameters<typeof useConfirmed>[0]> = {}) {
  const onConfirm = vi.fn<() => void>();
  const of = (more: typeof first) => ({
    of: 'pause 2',
    ready: false,
    clear: true,
    never: false,
    onConfirm,
    ...more,
  });
  const hook = renderHook((given: typeof first) => useConfirmed(of(given)), { initialProps: first });
  return {
    onConfirm,
    say: () => act(() => hook.result.current.confirm()),
    then: (more: typeof first) => hook.rerender(more),
    waits: () => hook.result.current.waits,
  };
}

afterEach(cleanup);

describe('a yes', () => {
  it('to what is shown is carried out at once', () => {
    const { say, onConfirm } = dialog({ ready: true });
    say();
    expect(onConfirm).toHaveBeenCalledOnce();
  });

  it('that comes before the answer is kept and carried out once', () => {
    const { say, then, waits, onConfirm } = dialog();
    say();
    expect([waits(), onConfirm.mock.calls.length]).toEqual([true, 0]);
    then({ ready: true });
    then({ ready: true });
    expect(onConfirm).toHaveBeenCalledOnce();
  });

  it('is not carried out where the answer asks for a look', () => {
    const { say, then, onConfirm } = dialog();
    say();
    then({ ready: true, clear: false });
    expect(onConfirm).not.toHaveBeenCalled();
    say();
    expect(onConfirm).toHaveBeenCalledOnce();
  });

  it('to something else is no yes to this', () => {
    const { say, then, onConfirm } = dialog();
    say();
    then({ of: 'pause 3', ready: true });
    expect(onConfirm).not.toHaveBeenCalled();
  });

  it('to what cannot be is not kept', () => {
    const { say, waits } = dialog({ never: true });
    say();
    expect(waits()).toBe(false);
  });
});
