import { useEffect, useRef } from 'react';
import type { ApiProblem, Command, SheetRow } from '../api/client';
import { tell, useCommand } from '../api/hooks';

type Row = Pick<SheetRow, 'kind' | 'id' | 'version'>;

/** What is done when somebody else changed the row meanwhile. */
export type OnConflict = (problem: ApiProblem, command: Command) => void;

/**
 * Changes one row as it was seen: what somebody else did to it meanwhile is told, not overwritten. An answer that comes after
 * the person went on to another row is told all the same.
 */
export function useRowCommand(
  onConflict: OnConflict,
  onProblem: (problem: ApiProblem) => void = tell,
  /** The page itself says what came of it. */
  quiet = false,
) {
  const here = useRef(true);
  useEffect(() => {
    here.current = true;
    return () => {
      here.current = false;
    };
  }, []);
  const run = useCommand({
    quiet,
    onProblem: (problem, command) => {
      if (problem.status === 409) onConflict(problem, command);
      else if (here.current) onProblem(problem);
      else tell(problem);
    },
  });
  const seen = (row: Row, command: Command): Command => ({
    ...command,
    seen: [{ kind: row.kind, id: row.id, version: row.version }],
  });
  const change = (row: Row, command: Command, onSuccess?: () => void) =>
    run.mutate(seen(row, command), { onSuccess: () => onSuccess?.() });
  /** The same, to be waited for, also when the page has gone on: true when it was done. */
  const changed = (row: Row, command: Command) =>
    run.mutateAsync(seen(row, command)).then(
      () => true,
      () => false,
    );
  return { change, changed, isPending: run.isPending };
}
