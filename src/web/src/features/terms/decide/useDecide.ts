import { useState } from 'react';
import type { Schemas } from '../../../api/client';
import { useCommand } from '../../../api/hooks';
import { goHome } from '../../../ui/home';

type Deciding = Omit<Schemas['CommandDecideTermsCommand'], 'type'>;

/** Decides terms in one step; what cannot be is told beside the button, and nothing is changed. */
export function useDecide(onDecided: () => void) {
  const [problem, setProblem] = useState<string | null>(null);
  const run = useCommand({ onProblem: (told) => setProblem(told.message) });
  return {
    problem,
    isPending: run.isPending,
    decide: (deciding: Deciding) => {
      if (run.isPending) return;
      setProblem(null);
      run.mutate(
        { type: 'decideTerms', ...deciding },
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
