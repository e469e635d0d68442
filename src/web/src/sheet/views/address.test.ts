// @vitest-environment jsdom
import { describe, expect, it } from 'vitest';
import { fromAddress, toAddress } from './address';
import { plainLook, type Look } from './look';

function there(look: Look, columns?: string[]) {
  const said = Object.entries(toAddress(look, columns)).filter(([, value]) => value !== null);
  return new URLSearchParams(said as [string, string][]);
}

describe('a look in the address', () => {
  it('leaves out what is as usual', () => {
    expect(there(plainLook).toString()).toBe('');
  });

  it('comes back as it was', () => {
    const look: Look = {
      text: 'grand & upright',
      state: 'paused',
      match: 'exact',
      changed: true,
      removed: false,
      needs: true,
      conditions: [
        { field: 'cost', test: 'above', values: ['25'] },
        { field: 'match', test: 'is', values: ['exact', 'phrase'] },
        { field: 'text', test: 'contains', values: ['a,b"c'] },
      ],
      figureDays: 7,
      sort: { by: 'cost', descending: true },
      columns: {},
    };
    const { columnKeys, ...back } = fromAddress(there(look, ['name', 'cost']));
    expect({ ...back, columns: {} }).toEqual(look);
    expect(columnKeys).toEqual(['name', 'cost']);
  });

  it.each(['if={', 'if=[1,2]', 'if=[["cost"]]', 'days=-3', 'days=x', 'only=,,'])(
    'is as usual where it cannot be read: %s',
    (text) => {
      const { columnKeys, ...look } = fromAddress(new URLSearchParams(text));
      expect({ ...look, columns: {} }).toEqual(plainLook);
      expect(columnKeys).toBeUndefined();
    },
  );
});
