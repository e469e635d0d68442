// @vitest-environment jsdom
import { act, cleanup, renderHook } from '@testing-library/react';
import type { KeyboardEvent } from 'react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { useTicks } from './useTicks';

const own = (word: string) => word;

function list(...first: string[]) {
  const onEnter = vi.fn<(item: string) => void>();
  const onDelete = vi.fn<(ticked: readonly string[]) => void>();
  const hook = renderHook((items: string[]) => useTicks({ items, keyOf: own, onEnter, onDelete }), {
    initialProps: first,
  });
  const press = (...keys: string[]) => {
    for (const key of keys)
      act(() =>
        hook.result.current.onKeyDown({
          key: key.replace('Ctrl ', ''),
          ctrlKey: key.startsWith('Ctrl '),
          target: 'list',
          currentTarget: 'list',
          preventDefault: () => undefined,
        } as unknown as KeyboardEvent),
      );
  };
  return { hook, press, onEnter, onDelete, ticked: () => hook.result.current.ticked };
}

afterEach(cleanup);

describe('rows to tick', () => {
  it('are ticked and unticked by Space, one under the other', () => {
    const { press, ticked } = list('a', 'b', 'c');
    press(' ', 'ArrowDown', 'ArrowDown', ' ');
    expect(ticked()).toEqual(['a', 'c']);
    press(' ');
    expect(ticked()).toEqual(['a']);
  });

  it('keep the keyboard on the same item when others come or go, and on the next one when it goes itself', () => {
    const { hook, press } = list('a', 'b', 'c');
    press('ArrowDown');
    hook.rerender(['new', 'a', 'b', 'c']);
    expect(hook.result.current.active).toBe(2);
    press('ArrowDown');
    expect(hook.result.current.active).toBe(3);
    hook.rerender(['new', 'a', 'b', 'd']);
    expect(hook.result.current.active).toBe(3);
  });

  it('are all ticked by Ctrl A, and none the second time', () => {
    const { press, ticked } = list('a', 'b');
    press('Ctrl a');
    expect(ticked()).toEqual(['a', 'b']);
    press('Ctrl a');
    expect(ticked()).toEqual([]);
  });

  it('are forgotten when they are gone', () => {
    const { hook, press, ticked } = list('a', 'b');
    press('Ctrl a');
    hook.rerender(['b']);
    expect(ticked()).toEqual(['b']);
  });

  it('are opened by Enter and removed by Delete, when there are any', () => {
    const { press, onEnter, onDelete } = list('a', 'b');
    press('Delete');
    expect(onDelete).not.toHaveBeenCalled();
    press('End', 'Enter', ' ', 'Delete');
    expect(onEnter).toHaveBeenCalledWith('b');
    expect(onDelete).toHaveBeenCalledExactlyOnceWith(['b']);
  });
});
