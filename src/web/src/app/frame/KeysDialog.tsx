import { useLocation } from 'react-router';
import { Dialog } from '../../ui/Dialog';
import { Keys } from '../../ui/Marks';
import { keysOf } from './keysOf';

export function KeysDialog({ open, onClose }: { open: boolean; onClose: () => void }) {
  const { pathname } = useLocation();
  return (
    <Dialog open={open} onClose={onClose} title="Keys of this page">
      <dl className="grid grid-cols-[minmax(0,10rem)_1fr] gap-x-4 gap-y-1.5" tabIndex={0}>
        {keysOf(pathname).map(([keys, what]) => (
          <div key={keys} className="contents">
            <dt className="text-right">
              <Keys>{keys}</Keys>
            </dt>
            <dd>{what}</dd>
          </div>
        ))}
      </dl>
    </Dialog>
  );
}
