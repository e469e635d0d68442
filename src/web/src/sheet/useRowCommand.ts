import { useEffect, useRef } from 'react';
import type { ApiProblem, Command, SheetRow } from '../api/client';
import { tell, useCommand } from '../api/hooks';

/** What is done when somebody else changed the row meanwhile. */
export type OnConflict = (problem: ApiProblem, command: Command) => void;

/**
 * Changes one row as it was seen: what somebody else did to it meanwhile is told, not overwritten. An answer that comes after
 * the person went on to another row is told all the same.
 */
export function useRowCommand(onConflict: OnConflict, onProblem: (problem: ApiProblem) => void = tell) {
  const here = useRef(true);
  useEffect(() => {
    here.current = true;
    return () => {
      here.current = false;
    };
  }, []);
  const run = useCommand({
    onProblem: (problem, command) => {
      if (problem.status === 409) onConflict(problem, command);
      else if (here.current) onProblem(problem);
      else tell(problem);
    },
  });
  const change = (row: Pick<SheetRow, 'kind' | 'id' | 'version'>, command: Command, onSuccess?: () => void) =>
    run.mutate(
      { ...command, seen: [{ kind: row.kind, id: row.id, version: row.version }] },
      { onSuccess: () => onSuccess?.() },
    );
  return { change, isPending: run.isPending };
}
