import { useCallback, useState } from 'react';
import { useAccount } from '../../api/account';
import { plainLook, type Look } from './look';

/** The look of the sheet; which columns a person has arranged is remembered in this browser. */
export function useStoredLook() {
  const account = useAccount();
  const key = `fendrik.columns.${account.id}`;
  const [look, setLook] = useState<Look>(() => ({ ...plainLook, columns: read(key) }));
  const keep = useCallback(
    (next: Look | ((current: Look) => Look)) =>
      setLook((current) => {
        const made = typeof next === 'function' ? next(current) : next;
        if (made.columns !== current.columns) window.localStorage.setItem(key, JSON.stringify(made.columns));
        return made;
      }),
    [key],
  );
  return [look, keep] as const;
}

function read(key: string): Look['columns'] {
  try {
    const columns: unknown = JSON.parse(window.localStorage.getItem(key) ?? '{}');
    return typeof columns === 'object' && columns !== null ? columns : {};
  } catch {
    return {};
  }
}
