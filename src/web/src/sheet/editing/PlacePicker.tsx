import { useState } from 'react';
import { Button } from '../../ui/Button';
import { CheckField } from '../../ui/Field';

interface Props {
  label: string;
  places: readonly { id: number; name: string }[];
  chosen: readonly number[];
  onChoose: (ids: readonly number[]) => void;
}

const mostShown = 200;

/** Several campaigns, ad groups or lists, found by a part of their name. */
export function PlacePicker({ label, places, chosen, onChoose }: Props) {
  const [text, setText] = useState('');
  const found = places.filter((place) => place.name.toLowerCase().includes(text.trim().toLowerCase()));
  const shown = found.slice(0, mostShown);
  const all = found.length > 0 && found.every((place) => chosen.includes(place.id));
  return (
    <fieldset className="min-w-0 rounded-sm border border-line p-2">
      <legend className="px-1 text-[12px] font-semibold text-ink-2">
        {label}
        {chosen.length > 0 && `: ${chosen.length} chosen`}
      </legend>
      <div className="mb-1 flex gap-2">
        <input
          type="search"
          aria-label={`Find ${label.toLowerCase()}`}
          placeholder="Contains…"
          value={text}
          onChange={(event) => setText(event.target.value)}
          className="min-w-0 flex-1 rounded-sm border border-line-strong bg-white px-2 py-0.5"
        />
        <Button
          tone="quiet"
          disabled={found.length === 0}
          onClick={() =>
            onChoose(
              all
                ? chosen.filter((id) => !found.some((place) => place.id === id))
                : [...new Set([...chosen, ...found.map((place) => place.id)])],
            )
          }
        >
          {all ? 'None of these' : 'All of these'}
        </Button>
      </div>
      <div className="max-h-36 overflow-auto">
        {shown.map((place) => (
          <CheckField
            key={place.id}
            label={place.name}
            checked={chosen.includes(place.id)}
            onChange={(on) =>
              onChoose(on ? [...chosen, place.id] : chosen.filter((each) => each !== place.id))
            }
          />
        ))}
        {shown.length === 0 && <p className="text-ink-3">None with this in the name.</p>}
        {found.length > mostShown && (
          <p className="text-ink-3">and {found.length - mostShown} more: write more of the name</p>
        )}
      </div>
    </fieldset>
  );
}
