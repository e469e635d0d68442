import { useEffect, useRef } from 'react';
import { toast } from 'sonner';
import { useAccount } from './account';
import { useRefresh } from './hooks';

interface Moved {
  revision: number;
  mine: boolean;
  person: string;
  label: string;
}

const settle = 250;

/**
 * Brings the page up to date when somebody else changes the account, and says who did what. Only the page that is looked
 * at listens: a browser has few connections to one place, and every open tab would hold one of them.
 */
export function useNews() {
  const account = useAccount();
  const refresh = useRefresh();
  const seen = useRef<number | null>(null);
  useEffect(() => {
    if (typeof EventSource === 'undefined') return;
    let source: EventSource | null = null;
    let waiting: ReturnType<typeof setTimeout> | undefined;
    const onMoved = (event: MessageEvent<string>) => {
      const moved = JSON.parse(event.data) as Moved;
      const before = seen.current;
      seen.current = moved.revision;
      if (before === null || before === moved.revision) return;
      if (!moved.mine && moved.label) toast(`${moved.person}: ${moved.label}`);
      clearTimeout(waiting);
      waiting = setTimeout(() => void refresh(), settle);
    };
    const stop = () => {
      source?.close();
      source = null;
    };
    const follow = () => {
      if (document.visibilityState !== 'visible') stop();
      else if (!source) {
        // What was missed meanwhile is told by the first event, which says where the account is now.
        source = new EventSource(`/api/accounts/${account.id}/news`);
        source.addEventListener('moved', onMoved);
      }
    };
    follow();
    document.addEventListener('visibilitychange', follow);
    window.addEventListener('pagehide', stop);
    window.addEventListener('pageshow', follow);
    return () => {
      clearTimeout(waiting);
      stop();
      document.removeEventListener('visibilitychange', follow);
      window.removeEventListener('pagehide', stop);
      window.removeEventListener('pageshow', follow);
    };
  }, [account.id, refresh]);
}
