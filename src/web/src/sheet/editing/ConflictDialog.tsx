import type { ApiProblem, Command } from '../../api/client';
import { useCommand } from '../../api/hooks';
import { useKinds } from '../../api/kinds';
import { Button } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';

interface Props {
  problem: ApiProblem;
  command: Command;
  /** What the person wrote, in words. */
  mine: string;
  onClose: () => void;
}

/** Someone else changed the row meanwhile: both versions, and a choice. */
export function ConflictDialog({ problem, command, mine, onClose }: Props) {
  const run = useCommand();
  const kinds = useKinds();
  const seen = problem.conflicts.map(({ kind, id, version }) => ({ kind, id, version }));
  return (
    <Dialog
      open
      onClose={onClose}
      title="Changed by someone else meanwhile"
      description="Nothing of yours is done yet. Look at both and choose."
      footer={
        <>
          <Button onClick={onClose}>Keep theirs</Button>
          <Button
            tone="ember"
            disabled={run.isPending}
            onClick={() => run.mutate({ ...command, seen }, { onSuccess: onClose })}
          >
            Use mine
          </Button>
        </>
      }
    >
      {problem.conflicts.map((conflict) => (
        <section key={`${conflict.kind}${conflict.id}`} className="mb-3">
          <h3 className="font-body text-base font-semibold">
            <span className="font-normal text-ink-3">{kinds.noun(conflict.kind)}</span> {conflict.name}
          </h3>
          <p className="text-ink-2">
            {conflict.person}: {conflict.label}
          </p>
          <table className="mt-1 w-full text-left">
            <tbody>
              {conflict.differences.map((difference) => (
                <tr key={difference.field} className="border-t border-line-soft">
                  <th scope="row" className="py-1 pr-3 font-normal text-ink-2">
                    {difference.field}
                  </th>
                  <td className="py-1 pr-3 text-ink-3">you saw {difference.before ?? '—'}</td>
                  <td className="py-1">theirs {difference.after ?? '—'}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      ))}
      <p>
        Yours: <b>{mine}</b>
      </p>
    </Dialog>
  );
}
