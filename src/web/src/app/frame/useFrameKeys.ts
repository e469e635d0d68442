import { useEffect } from 'react';
import { goHome, hasLayer } from '../../ui/home';

interface FrameKeys {
  onFind: () => void;
  onKeys: () => void;
  onUndo: () => void;
  onRedo: () => void;
  onBringIn: () => void;
}

/** True while keys belong to something that takes text. */
function typing(target: EventTarget | null) {
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName)) &&
    !['checkbox', 'radio'].includes((target as HTMLInputElement).type) &&
    !(target as HTMLInputElement).readOnly
  );
}

const reachable =
  'button:not([disabled]):not([tabindex="-1"]), input:not([disabled]):not([tabindex="-1"]), textarea:not([disabled]), summary, a[href]';

/** To the side panel of the page, or back from it. */
function changeSides() {
  const side = document.querySelector<HTMLElement>('[data-side]');
  if (!side || side.contains(document.activeElement)) return goHome();
  const first = side.querySelector<HTMLElement>(reachable);
  // A panel that only says something is read where it stands.
  if (!first) side.tabIndex = -1;
  (first ?? side).focus();
}

/** The keys that do the same on every page. Behind something that is open above the page they do nothing. */
export function useFrameKeys({ onFind, onKeys, onUndo, onRedo, onBringIn }: FrameKeys) {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (hasLayer() || event.defaultPrevented) return;
      const control = event.ctrlKey || event.metaKey;
      const letter = event.key.toLowerCase();
      const done = (what: () => void) => {
        event.preventDefault();
        what();
      };
      if (control && letter === 'k') done(onFind);
      else if (control && letter === 'z' && !typing(event.target)) done(event.shiftKey ? onRedo : onUndo);
      else if (event.altKey && !control && event.code === 'KeyI') done(onBringIn);
      else if (event.key === 'F6') done(changeSides);
      else if (event.key === '?' && !typing(event.target)) done(onKeys);
      else if (
        event.key === 'Escape' &&
        event.target instanceof HTMLElement &&
        event.target.closest('[data-side]')
      )
        done(goHome);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [onFind, onKeys, onUndo, onRedo, onBringIn]);
}
