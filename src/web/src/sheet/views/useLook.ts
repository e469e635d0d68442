import { useCallback, useMemo } from 'react';
import { useSearchParams } from 'react-router';
import { useAccount } from '../../api/account';
import type { SheetView } from '../sheetQuery';
import { addressNames, fromAddress, toAddress } from './address';
import type { Look } from './look';

/**
 * What a sheet shows, kept in the address: it survives Back, a reload and a link to a colleague. Which columns a person has
 * arranged is remembered in this browser too, for where the address does not say.
 */
export function useLook(view: SheetView) {
  const account = useAccount();
  const key = `fendrik.columns.${account.id}`;
  const [parameters, setParameters] = useSearchParams();
  const said = addressNames.map((name) => parameters.get(name) ?? '').join('\n');
  const look = useMemo<Look>(() => {
    const { columnKeys, ...read } = fromAddress(new URLSearchParams(parameters));
    const arranged = arrangedIn(key);
    return { ...read, columns: columnKeys ? { ...arranged, [view]: columnKeys } : arranged };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- a look is the same as long as its part of the address is
  }, [said, view, key]);
  const setLook = useCallback(
    (next: Look | ((now: Look) => Look), more: Record<string, string | null> = {}, inPlace = false) => {
      setParameters(
        (current) => {
          const { columnKeys, ...read } = fromAddress(current);
          const before: Look = {
            ...read,
            columns: columnKeys ? { ...arrangedIn(key), [view]: columnKeys } : arrangedIn(key),
          };
          const made = typeof next === 'function' ? next(before) : next;
          const into = (more.view === undefined ? view : (more.view ?? 'outline')) as SheetView;
          const arranged = made.columns[into];
          if (made.columns !== before.columns)
            window.localStorage.setItem(key, JSON.stringify({ ...arrangedIn(key), ...made.columns }));
          const address = new URLSearchParams(current);
          const all = { ...toAddress(made, arranged), ...more };
          for (const [name, value] of Object.entries(all)) {
            if (value === null) address.delete(name);
            else address.set(name, value);
          }
          for (const name of ['focus', 'field', 'add']) address.delete(name);
          return address;
        },
        { replace: inPlace },
      );
    },
    [setParameters, view, key],
  );
  return [look, setLook] as const;
}

function arrangedIn(key: string): Look['columns'] {
  try {
    const columns: unknown = JSON.parse(window.localStorage.getItem(key) ?? '{}');
    return typeof columns === 'object' && columns !== null ? columns : {};
  } catch {
    return {};
  }
}
