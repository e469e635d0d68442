import { createContext, useContext, useEffect } from 'react';

/** The look in which everything that is done is proposed; none where it is done. */
export const VariantContext = createContext<number | null>(null);

/** The look of which the page shows the variant; none on pages of the working copy. */
export function useVariant() {
  return useContext(VariantContext);
}

let proposing = 0;

/** True while the page that is open shows a variant: the keys of the frame undo nothing there. */
export const isProposing = () => proposing > 0;

/** Says that the page shows a variant, as long as it is open. */
export function useProposing() {
  useEffect(() => {
    proposing += 1;
    return () => {
      proposing -= 1;
    };
  }, []);
}
