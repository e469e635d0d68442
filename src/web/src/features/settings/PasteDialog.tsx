import { useState } from 'react';
import { tell } from '../../api/hooks';
import type { Schemas } from '../../api/client';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Dialog } from '../../ui/Dialog';
import { TextArea } from '../../ui/Field';
import { plural } from '../../ui/format';
import { useReadPlaces } from './useSettings';

const none = '';

/** A list of names: what means one place is taken, what means several is asked, what means none is named. */
export function PasteDialog({ onAdd, onClose }: { onAdd: (names: string[]) => void; onClose: () => void }) {
  const read = useReadPlaces();
  const [text, setText] = useState('');
  const [readings, setReadings] = useState<readonly Schemas['PlaceReading'][] | null>(null);
  const [chosen, setChosen] = useState<ReadonlyMap<string, string>>(new Map());
  const look = async () => {
    try {
      setReadings(await read(text.split(/\r?\n|;/)));
    } catch (error) {
      tell(error);
    }
  };
  const names = (readings ?? []).flatMap((reading) => {
    const only = reading.places.length === 1 ? reading.places[0] : chosen.get(reading.text);
    return only ? [only] : [];
  });
  const asked = (readings ?? []).filter((reading) => reading.places.length > 1);
  const unknown = (readings ?? []).filter((reading) => reading.places.length === 0);
  return (
    <Dialog
      open
      onClose={onClose}
      title="Paste places"
      description="One on each line: countries (or their codes by ISO 3166), regions and towns."
      footer={
        <>
          <Button onClick={onClose}>Leave</Button>
          {readings === null ? (
            <Button tone="ember" disabled={!text.trim()} onClick={() => void look()}>
              Look at them
            </Button>
          ) : (
            <Button tone="ember" data-confirms disabled={names.length === 0} onClick={() => onAdd(names)}>
              Add {plural(names.length, 'place')}
            </Button>
          )}
        </>
      }
    >
      <TextArea
        label="Names"
        rows={6}
        value={text}
        onChange={(event) => {
          setText(event.target.value);
          setReadings(null);
        }}
        onKeyDown={(event) => {
          if (event.key !== 'Enter' || !(event.ctrlKey || event.metaKey)) return;
          event.preventDefault();
          void look();
        }}
        hint="Ctrl Enter looks at them."
      />
      {asked.map((reading) => (
        <div key={reading.text} className="mt-2 flex items-center gap-2">
          <span className="text-ochre">◆ “{reading.text}” may be</span>
          <Choice
            label={`Which ${reading.text}`}
            value={chosen.get(reading.text) ?? none}
            options={[
              { value: none, label: 'Choose…' },
              ...reading.places.map((place) => ({ value: place, label: place })),
            ]}
            onChange={(place) => setChosen(new Map(chosen).set(reading.text, place))}
          />
        </div>
      ))}
      {unknown.length > 0 && (
        <p className="mt-2 text-brick">
          Not known, and left out: {unknown.map((reading) => `“${reading.text}”`).join(', ')}.
        </p>
      )}
    </Dialog>
  );
}
