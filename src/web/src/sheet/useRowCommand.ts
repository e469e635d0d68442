import type { ApiProblem, Command, SheetRow } from '../api/client';
import { tell, useCommand } from '../api/hooks';

/** What is done when somebody else changed the row meanwhile. */
export type OnConflict = (problem: ApiProblem, command: Command) => void;

/** Changes one row as it was seen: what somebody else did to it meanwhile is told, not overwritten. */
export function useRowCommand(onConflict: OnConflict, onProblem: (problem: ApiProblem) => void = tell) {
  const run = useCommand({
    onProblem: (problem) => {
      if (problem.status !== 409) onProblem(problem);
    },
  });
  const change = (row: SheetRow, command: Command, onSuccess?: () => void) =>
    run.mutate(
      { ...command, seen: [{ kind: row.kind, id: row.id, version: row.version }] },
      {
        onSuccess: () => onSuccess?.(),
        onError: (error) => {
          const problem = error as ApiProblem;
          if (problem.status === 409) onConflict(problem, command);
        },
      },
    );
  return { change, isPending: run.isPending };
}
