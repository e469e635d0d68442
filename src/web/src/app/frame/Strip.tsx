import { useIsProposing } from '../../api/variant';
import { Link } from 'react-router';
import { useStatus, useUndo } from '../../api/hooks';
import { Button } from '../../ui/Button';
import { Keys, WeightMark } from '../../ui/Marks';
import { useAccount } from '../../api/account';
import { clockTime, plural } from '../../ui/format';
import { useGo } from '../scope';

/** The line at the bottom: what differs from the live copy, what is in the way, undo, review. */
export function Strip() {
  const account = useAccount();
  const status = useStatus();
  const { undo } = useUndo();
  const go = useGo();
  const data = status.data;
  // Where things are proposed, undoing a step would undo something else.
  const mayUndo = useIsProposing() ? false : !!data?.undoLabel && account.mayChange;
  const checks = `/${account.id}/ship/checks`;
  return (
    <footer className="flex min-h-[32px] flex-wrap items-center gap-x-4 border-t border-line-strong bg-sheet px-3.5 text-[12.5px] text-ink-2">
      {data ? (
        <>
          <Link to={`/${account.id}/ship/changes`} className="rounded-sm hover:underline">
            {data.counting ? (
              <span className="text-ink-3">counting changes…</span>
            ) : (
              <>
                <b className="text-ink">{plural(data.changes, 'change')}</b> since the last publish
              </>
            )}
          </Link>
          {data.publishStopped && (
            <Link
              to={`/${account.id}/ship/changes`}
              className="rounded-sm font-semibold text-ember hover:underline"
            >
              Publish interrupted
            </Link>
          )}
          {!data.counting && data.blockers > 0 && (
            <Link to={checks} className="rounded-sm font-semibold hover:underline">
              <WeightMark weight="blocker">{plural(data.blockers, 'blocker')}</WeightMark>
            </Link>
          )}
          {!data.counting && data.cautions > 0 && (
            <Link to={checks} className="rounded-sm hover:underline">
              <WeightMark weight="caution">{plural(data.cautions, 'caution')}</WeightMark>
            </Link>
          )}
          {!data.counting && data.hints > 0 && (
            <Link to={checks} className="rounded-sm hover:underline">
              <WeightMark weight="hint">{plural(data.hints, 'hint')}</WeightMark>
            </Link>
          )}
          <span>
            {data.liveReadAt ? `Live copy read ${clockTime(data.liveReadAt)}` : 'Live copy not read yet'}
          </span>
          {!account.mayPublish && (
            <span>
              {account.isArchived
                ? 'This account is put away'
                : account.mayChange
                  ? 'You may change, and not publish'
                  : 'You may look, and not change'}
            </span>
          )}
          {mayUndo && (
            <button
              type="button"
              onClick={() => void undo()}
              className="ml-auto max-w-[420px] truncate rounded-sm hover:text-ink"
            >
              Undo “{data.undoLabel}” <Keys>Ctrl Z</Keys>
            </button>
          )}
          <Button tone="plum" className={mayUndo ? '' : 'ml-auto'} onClick={() => go('ship/changes')}>
            Review changes
          </Button>
        </>
      ) : (
        <span>{status.isError ? 'The state of the account cannot be read.' : 'Reading…'}</span>
      )}
    </footer>
  );
}
