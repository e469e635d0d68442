import { Button } from '../../ui/Button';
import { ConfirmButton } from '../../ui/ConfirmButton';
import { Dialog } from '../../ui/Dialog';

interface Props {
  open: string;
  pasted: string;
  onBoth: () => void;
  onReplace: () => void;
  onClose: () => void;
}

/** A list came while another is open: both can wait. */
export function WhichList({ open, pasted, onBoth, onReplace, onClose }: Props) {
  return (
    <Dialog
      open
      onClose={onClose}
      title="Two lists"
      description={`“${open}” is open, and “${pasted}” has just come.`}
      footer={
        <>
          <Button onClick={onClose}>Forget the new one</Button>
          <Button onClick={onReplace}>Leave the open one</Button>
          <ConfirmButton open onPress={onBoth}>
            Keep both
          </ConfirmButton>
        </>
      }
    >
      <p>
        With both kept, the open one waits: it is in the list at the top of this page, and on the start page.
        Nothing of either is in the working copy yet.
      </p>
    </Dialog>
  );
}
