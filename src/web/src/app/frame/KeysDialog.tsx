import { useLocation } from 'react-router';
import { Dialog } from '../../ui/Dialog';
import { Keys } from '../../ui/Marks';

const everywhere: [string, string][] = [
  ['Ctrl K', 'Find anything, run any command'],
  ['Ctrl Z', 'Undo'],
  ['Ctrl Shift Z', 'Redo'],
  ['?', 'These keys'],
];

const byPage: Record<string, [string, string][]> = {
  'plan/structure': [
    ['↑ ↓ ← →', 'Move in the sheet'],
    ['Page Up, Page Down, Home, End', 'Move further'],
    ['Enter', 'Edit the cell; fold or unfold on a name with rows below it'],
    ['F2', 'Edit the cell'],
    ['Space', 'Select the row'],
    ['Shift ↑ ↓', 'Extend the selection'],
    ['Ctrl A', 'Select all that match, loaded or not'],
    ['Shift ← →', 'Mark several columns'],
    ['Ctrl C', 'Copy the marked cells of the selected rows'],
    ['Ctrl Shift C', 'Copy whole rows with their titles'],
    ['Ctrl V', 'Paste cells: a block, or one value into many'],
    ['Ctrl D', 'Fill the first selected value down'],
    ['Alt T', 'Change the texts of what is selected'],
    ['Alt C', 'Copy with changes'],
    ['Alt L', 'Labels'],
    ['Alt O', 'Take out into a file'],
    ['Delete', 'Remove what is selected'],
    ['Esc', 'Leave the edit, or clear the selection'],
    ['Any letter', 'Go to the next row that begins with it'],
  ],
  'plan/intake': [['Ctrl V', 'Paste cells from a spreadsheet']],
};

export function KeysDialog({ open, onClose }: { open: boolean; onClose: () => void }) {
  const { pathname } = useLocation();
  const page = Object.entries(byPage).find(([path]) => pathname.endsWith(path))?.[1] ?? [];
  return (
    <Dialog open={open} onClose={onClose} title="Keys of this page">
      <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1.5">
        {[...page, ...everywhere].map(([keys, what]) => (
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
