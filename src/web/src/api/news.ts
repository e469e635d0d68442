import { useEffect } from 'react';
import { toast } from 'sonner';
import { useAccount } from '../app/account';
import { useRefresh } from './hooks';

interface Moved {
  revision: number;
  mine: boolean;
  person: string;
  label: string;
}

const settle = 250;

/** Brings the page up to date when somebody else changes the account, and says who did what. */
export function useNews() {
  const account = useAccount();
  const refresh = useRefresh();
  useEffect(() => {
    if (typeof EventSource === 'undefined') return;
    const source = new EventSource(`/api/accounts/${account.id}/news`);
    let first = true;
    let waiting: ReturnType<typeof setTimeout> | undefined;
    source.addEventListener('moved', (event: MessageEvent<string>) => {
      const moved = JSON.parse(event.data) as Moved;
      // The first one says where things stand, which the page has just read.
      if (first) {
        first = false;
        return;
      }
      if (!moved.mine && moved.label) toast(`${moved.person}: ${moved.label}`);
      clearTimeout(waiting);
      waiting = setTimeout(() => void refresh(), settle);
    });
    source.addEventListener('error', () => {
      // The browser connects again by itself; what was missed meanwhile comes with the next event.
      first = false;
    });
    return () => {
      clearTimeout(waiting);
      source.close();
    };
  }, [account.id, refresh]);
}
