import { createContext, useContext, useEffect, useSyncExternalStore } from 'react';

/** The look in which everything that is done is proposed; none where it is done. */
export const VariantContext = createContext<number | null>(null);

/** The look of which the page shows the variant; none on pages of the working copy. */
export function useVariant() {
  return useContext(VariantContext);
}

let open = 0;
const listeners = new Set<() => void>();

const move = (by: number) => {
  open += by;
  for (const listener of listeners) listener();
};

const follow = (listener: () => void) => {
  listeners.add(listener);
  return () => {
    listeners.delete(listener);
  };
};

/** True while the page that is open shows a variant: what undoes steps of the working copy keeps still there. */
export const isProposing = () => open > 0;

/** The same for what is drawn around the page. */
export const useIsProposing = () => useSyncExternalStore(follow, isProposing);

/** Says that the page shows a variant, as long as it is open. */
export function useProposing() {
  useEffect(() => {
    move(1);
    return () => {
      move(-1);
    };
  }, []);
}
