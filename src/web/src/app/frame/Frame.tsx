import { useCallback, useEffect, useState, type ReactNode } from 'react';
import { useLocation, useSearchParams } from 'react-router';
import { toast } from 'sonner';
import type { Session } from '../../api/client';
import { useUndo } from '../../api/hooks';
import { useNews } from '../../api/news';
import { isProposing } from '../../api/variant';
import { useHome } from '../../ui/home';
import { rememberPlace } from '../lastPlaces';
import { useGo } from '../scope';
import { CommandField } from './CommandField';
import { KeysDialog } from './KeysDialog';
import { Ribbon } from './Ribbon';
import { Strip } from './Strip';
import { TopBar } from './TopBar';
import { useClock } from './useClock';
import { useFrameKeys } from './useFrameKeys';
import { usePageTitle } from './usePageTitle';

/** What is proposed is no step of the working copy: undoing one from there would undo something else. */
const sayWhere = () => toast('What is proposed is taken back in the list beside the sheet.');

export function Frame({ session, children }: { session: Session; children: ReactNode }) {
  const [finding, setFinding] = useState(false);
  const [keys, setKeys] = useState(false);
  const { undo, redo } = useUndo();
  const { pathname } = useLocation();
  const [parameters] = useSearchParams();
  const go = useGo();
  const clock = useClock();
  useEffect(() => rememberPlace(pathname, parameters), [pathname, parameters]);
  useNews();
  usePageTitle();
  useHome(
    [pathname, ...['campaign', 'adGroup', 'view', 'focus'].map((name) => parameters.get(name))].join(' '),
  );
  useFrameKeys({
    onFind: useCallback(() => setFinding(true), []),
    onKeys: useCallback(() => setKeys(true), []),
    onUndo: useCallback(() => (isProposing() ? sayWhere() : void undo()), [undo]),
    onRedo: useCallback(() => (isProposing() ? sayWhere() : void redo()), [redo]),
    onBringIn: useCallback(() => go('plan/intake'), [go]),
  });

  return (
    <div className="grid h-full min-h-0 grid-rows-[auto_auto_minmax(0,1fr)_auto]">
      <a
        href="#page"
        className="absolute left-2 z-50 -translate-y-20 rounded-sm bg-sheet px-3 py-1 focus:translate-y-2"
      >
        Skip to the page
      </a>
      <TopBar session={session} clock={clock} onFind={() => setFinding(true)} />
      <Ribbon />
      <main id="page" tabIndex={-1} className="min-h-0 min-w-0 overflow-auto outline-none">
        {children}
      </main>
      <Strip />
      <CommandField
        open={finding}
        clock={clock}
        onClose={() => setFinding(false)}
        onKeys={() => setKeys(true)}
      />
      <KeysDialog open={keys} onClose={() => setKeys(false)} />
    </div>
  );
}
