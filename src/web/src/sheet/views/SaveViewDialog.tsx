import { useState } from 'react';
import type { Schemas } from '../../api/client';
import type { NamedView, Views } from '../../api/views';
import { Button } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { TextField } from '../../ui/Field';

/** A view in a list, with where it leads when that is elsewhere. */
export function ViewName({ view, here }: { view: NamedView; here: 'sheet' | 'results' }) {
  const isOfResults = Boolean(view.look.results);
  return (
    <span>
      <b className="font-semibold">{view.name}</b>
      {here === 'sheet' && isOfResults && <span className="text-ink-3"> · in Results</span>}
      {here === 'results' && !isOfResults && <span className="text-ink-3"> · these items</span>}
    </span>
  );
}

interface Props {
  views: Views;
  look: () => Schemas['SheetLook'];
  onClose: () => void;
}

/** Keeps what is shown under a name, and lets go of what was kept. */
export function SaveViewDialog({ views, look, onClose }: Props) {
  const [name, setName] = useState('');
  const names = views.all.map((each) => each.name);
  return (
    <Dialog
      open
      onClose={onClose}
      title="Save what is shown"
      description="Filter, order, columns and period under a name, for you at this account."
    >
      <form
        className="flex items-end gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          void views.save(name.trim(), look()).then((done) => done && onClose());
        }}
      >
        <TextField
          label="Name"
          autoFocus
          className="flex-1"
          value={name}
          hint={names.includes(name.trim()) ? 'The view of this name is replaced.' : undefined}
          onChange={(event) => setName(event.target.value)}
        />
        <Button type="submit" tone="ember" disabled={!name.trim()}>
          Save
        </Button>
      </form>
      {names.length > 0 && (
        <ul className="mt-3 space-y-1">
          {names.map((each) => (
            <li key={each} className="flex items-center justify-between">
              {each}
              <Button
                tone="quiet"
                aria-label={`Remove the view ${each}`}
                onClick={() => void views.remove(each)}
              >
                Remove
              </Button>
            </li>
          ))}
        </ul>
      )}
    </Dialog>
  );
}
