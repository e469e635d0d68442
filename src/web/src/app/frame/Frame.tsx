import { useEffect, useState, type ReactNode } from 'react';
import type { Session } from '../../api/client';
import { useUndo } from '../../api/hooks';
import { useNews } from '../../api/news';
import { CommandField } from './CommandField';
import { KeysDialog } from './KeysDialog';
import { Ribbon } from './Ribbon';
import { Strip } from './Strip';
import { TopBar } from './TopBar';

/** True while keys belong to something that takes text. */
function typing(target: EventTarget | null) {
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName))
  );
}

export function Frame({ session, children }: { session: Session; children: ReactNode }) {
  const [finding, setFinding] = useState(false);
  const [keys, setKeys] = useState(false);
  const { undo, redo } = useUndo();
  useNews();

  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const control = event.ctrlKey || event.metaKey;
      if (control && event.key.toLowerCase() === 'k') {
        event.preventDefault();
        setFinding(true);
      } else if (control && event.key.toLowerCase() === 'z' && !typing(event.target)) {
        event.preventDefault();
        void (event.shiftKey ? redo() : undo());
      } else if (event.key === '?' && !typing(event.target)) {
        setKeys(true);
      }
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [undo, redo]);

  return (
    <div className="grid h-full min-h-0 grid-rows-[46px_42px_minmax(0,1fr)_auto]">
      <a
        href="#page"
        className="absolute left-2 z-50 -translate-y-20 rounded-sm bg-sheet px-3 py-1 focus:translate-y-2"
      >
        Skip to the page
      </a>
      <TopBar session={session} onFind={() => setFinding(true)} />
      <Ribbon />
      <main id="page" className="min-h-0 min-w-0 overflow-auto">
        {children}
      </main>
      <Strip />
      <CommandField open={finding} onClose={() => setFinding(false)} onKeys={() => setKeys(true)} />
      <KeysDialog open={keys} onClose={() => setKeys(false)} />
    </div>
  );
}
