import { useState } from 'react';
import type { Command, Schemas } from '../../api/client';
import { useKinds } from '../../api/kinds';
import { plural } from '../../ui/format';
import { Button } from '../../ui/Button';
import { TextField } from '../../ui/Field';

interface Props {
  ticked: readonly Schemas['NamedFinding'][];
  onPreview: (command: Command) => void;
}

/** What is done to all that is ticked: in one step, after one look. */
export function TogetherBar({ ticked, onPreview }: Props) {
  const kinds = useKinds();
  const [text, setText] = useState('');
  const items = [...new Map(ticked.map((each) => [`${each.kind}:${each.itemId}`, each])).values()];
  const chosen = items.map(({ kind, itemId }) => ({ kind, id: itemId }));
  // Where all want the same field, it is filled in for all.
  const fields = new Set(ticked.map((each) => each.field ?? ''));
  const [field] = fields.size === 1 ? [...fields] : [''];
  const described = field ? items.map((each) => kinds.field(each.kind, field)).find(Boolean) : undefined;
  const settable =
    described && described.form !== 'lines' && items.every((each) => kinds.field(each.kind, field ?? ''));
  return (
    <div
      role="toolbar"
      aria-label="For all that is ticked"
      className="flex flex-wrap items-end gap-2 border-b border-line bg-plum-wash px-3 py-1.5"
    >
      <b className="self-center font-semibold">{plural(items.length, 'item')} ticked</b>
      {settable && (
        <form
          className="flex items-end gap-1.5"
          onSubmit={(event) => {
            event.preventDefault();
            if (text.trim())
              onPreview({ type: 'setFields', items: chosen, values: { [described.name]: text } });
          }}
        >
          <TextField
            label={`${described.label} of all of them`}
            hideLabel
            className="w-32"
            placeholder={`${described.label}, ${described.example}`}
            value={text}
            onChange={(event) => setText(event.target.value)}
          />
          <Button type="submit" tone="plum" disabled={!text.trim()}>
            Set for {plural(items.length, 'item')}…
          </Button>
        </form>
      )}
      {items.every((each) => kinds.field(each.kind, 'state')) && (
        <Button onClick={() => onPreview({ type: 'setFields', items: chosen, values: { state: 'paused' } })}>
          Pause {plural(items.length, 'item')}…
        </Button>
      )}
      {items.every((each) => kinds.of(each.kind).comesAndGoes) && (
        <Button tone="brick" onClick={() => onPreview({ type: 'remove', items: chosen })}>
          Remove {plural(items.length, 'item')}…
        </Button>
      )}
    </div>
  );
}
