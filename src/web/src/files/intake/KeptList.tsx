import type { Schemas } from '../../api/client';
import { useGo } from '../../app/scope';
import { plural } from '../../ui/format';
import { isHome } from '../../ui/home';
import { Button } from '../../ui/Button';

interface Props {
  intake: Schemas['IntakeView'];
  waiting: readonly Schemas['WaitingList'][];
  onOther: () => void;
}

/** What became of a list that was brought in; true also after it was taken back. */
export function KeptList({ intake, waiting, onOther }: Props) {
  const go = useGo();
  const items = plural(intake.done?.items ?? 0, 'item');
  const reverted = intake.done?.reverted ?? false;
  return (
    <div className="max-w-md space-y-4 text-center" role="status">
      <h2 className="text-[20px]">
        {reverted
          ? `${items} from ${intake.fileName} taken back`
          : `Brought in ${items} from ${intake.fileName}`}
      </h2>
      <p className="text-ink-2">
        {reverted
          ? 'The working copy is as it was before. Redo brings them in again.'
          : 'It is one step: undo takes all of it back.'}
      </p>
      <div className="flex justify-center gap-2">
        {!reverted && (
          <Button
            {...isHome}
            tone="ember"
            onClick={() =>
              go('plan/structure', { step: intake.stepId ?? null, campaign: null, adGroup: null })
            }
          >
            Show what came in
          </Button>
        )}
        <Button {...(reverted ? isHome : {})} onClick={onOther}>
          {waiting.length > 0 ? `Go on with “${waiting[0]?.fileName ?? ''}”` : 'Bring in another list'}
        </Button>
      </div>
    </div>
  );
}
