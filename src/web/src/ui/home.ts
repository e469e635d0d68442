import { useEffect } from 'react';

/** Put on the one element of a page where the keyboard belongs: its sheet, or what stands in for it. */
export const isHome = { 'data-home': '' } as const;

/** Put on bars above a sheet: whoever has chosen something in them is back in the sheet. */
export const leadsHome = { 'data-leads-home': '' } as const;

/** Put around what is worked in for a while, such as a slot: whoever opened something from there is back there. */
export const keepsKeyboard = { 'data-keeps-keyboard': '' } as const;

/** Where one is worked in for a while, around an element; none elsewhere. */
export const keeperOf = (element: Element | null): HTMLElement | null =>
  element?.closest<HTMLElement>('[data-keeps-keyboard]') ?? null;

const layers = '[role=dialog], [role=alertdialog], [role=menu], [role=listbox]';
const longestWait = 3_000;

/** Something is open above the page: keys belong to it. */
export function hasLayer(): boolean {
  return document.querySelector(layers) !== null;
}

/** Gives the keyboard to where it belongs on the page; without such a place, to the page itself. */
export function goHome(): void {
  const home =
    document.querySelector<HTMLElement>('[data-home]') ?? document.querySelector<HTMLElement>('#page');
  home?.focus({ preventScroll: true });
}

/** The page has a place of its own for the keyboard. */
export function hasHome(): boolean {
  return document.querySelector('[data-home]') !== null;
}

/** Nobody has the keyboard: what had it is gone, or the page has got a place for it since. */
function isLost(): boolean {
  const active = document.activeElement;
  return !hasLayer() && (active === null || active === document.body || (active.id === 'page' && hasHome()));
}

/** Nobody ever loses the keyboard: when what had it goes away, it is back where the work is. */
export function useHome(place: string) {
  useEffect(() => {
    let frame = 0;
    const look = () => {
      if (!isLost()) return;
      cancelAnimationFrame(frame);
      // Where a dialog or a row gives way to another, that one takes the focus first.
      frame = requestAnimationFrame(() => isLost() && goHome());
    };
    const observer = new MutationObserver(look);
    observer.observe(document.body, { childList: true, subtree: true });
    document.addEventListener('focusout', look);
    return () => {
      cancelAnimationFrame(frame);
      observer.disconnect();
      document.removeEventListener('focusout', look);
    };
  }, []);

  // A page that was just opened has the keyboard as soon as it is there, unless the person has gone somewhere meanwhile.
  useEffect(() => {
    const before = document.activeElement;
    const until = Date.now() + longestWait;
    let frame = requestAnimationFrame(function wait() {
      if (hasLayer() || (document.activeElement !== before && document.activeElement !== document.body))
        return;
      if (hasHome() || Date.now() > until) goHome();
      else frame = requestAnimationFrame(wait);
    });
    return () => cancelAnimationFrame(frame);
  }, [place]);
}
