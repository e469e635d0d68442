import { createContext, useContext, useState } from 'react';
import type { Schemas } from '../../../api/client';
import { useCommand, useRefresh } from '../../../api/hooks';
import { goHome } from '../../../ui/home';

type Deciding = Omit<Schemas['CommandDecideTermsCommand'], 'type' | 'asOf'>;

interface Deciders {
  /** The newest step when the terms were read: what others decided since is told. */
  asOf: number;
  /** True when a key of the table asked for the step. */
  leads: boolean;
  onLed: () => void;
  onDecided: () => void;
}

export const DecideContext = createContext<Deciders | null>(null);

/** What all ways to decide have in common. */
export function useDeciders(): Deciders {
  const deciders = useContext(DecideContext);
  if (!deciders) throw new Error('Nothing is decided here.');
  return deciders;
}

/** Decides terms in one step; what cannot be is told beside the button, and nothing is changed. */
export function useDecide() {
  const { asOf, onDecided } = useDeciders();
  const [problem, setProblem] = useState<string | null>(null);
  const refresh = useRefresh();
  const run = useCommand({
    onProblem: (told) => {
      setProblem(told.message);
      // What a colleague decided meanwhile is shown.
      void refresh(['terms']);
    },
  });
  return {
    problem,
    isPending: run.isPending,
    decide: (deciding: Deciding) => {
      if (run.isPending) return;
      setProblem(null);
      run.mutate(
        { type: 'decideTerms', ...deciding, asOf },
        {
          onSuccess: () => {
            onDecided();
            goHome();
          },
        },
      );
    },
  };
}
