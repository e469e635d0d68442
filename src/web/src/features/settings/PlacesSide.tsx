import { useState, type FormEvent } from 'react';
import type { SheetRow } from '../../api/client';
import { useCommand } from '../../api/hooks';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { TextField } from '../../ui/Field';
import { plural } from '../../ui/format';
import { goHome } from '../../ui/home';
import { Panel } from '../../ui/Panel';
import { PasteDialog } from './PasteDialog';
import { PlaceMap } from './PlaceMap';
import { placeWords } from './placeWords';
import { useKnownPlaces, useReadPlaces, type KnownPlace } from './useSettings';

interface Props {
  campaign: SheetRow;
  others: readonly SheetRow[];
  places: readonly SheetRow[];
  placesOf: (campaign: SheetRow) => readonly SheetRow[];
}

const mostFound = 8;

/** Where a campaign shows: its places, a map of them, and adding more by name, by a list or on the map. */
export function PlacesSide({ campaign, others, places, placesOf }: Props) {
  const known = useKnownPlaces();
  const [side, setSide] = useState<'in' | 'out'>('in');
  const [radius, setRadius] = useState('');
  const [modifier, setModifier] = useState('');
  const [pasting, setPasting] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const run = useCommand({ onProblem: (told) => setProblem(told.message) });
  const add = (names: readonly string[]) => {
    if (run.isPending || names.length === 0) return;
    setProblem(null);
    run.mutate(
      {
        type: 'addItems',
        kind: 'place',
        items: names.map((text) => ({ text, side, radius: radius.trim(), modifier: modifier.trim() })),
        places: { campaignIds: [campaign.id], adGroupIds: [], listIds: [] },
        seen: [],
      },
      {
        onSuccess: () => {
          setRadius('');
          setModifier('');
        },
      },
    );
  };
  const remove = (place: SheetRow) => {
    if (run.isPending) return;
    run.mutate({
      type: 'remove',
      items: [{ kind: 'place', id: place.id }],
      seen: [{ kind: 'place', id: place.id, version: place.version }],
    });
  };
  const words = placeWords(places);
  const different = others.filter((other) => placeWords(placesOf(other)) !== words);
  const copy = () => {
    if (run.isPending) return;
    run.mutate({
      type: 'copy',
      items: places.map(({ kind, id }) => ({ kind, id })),
      place: { campaignIds: different.map((other) => other.id), adGroupIds: [] },
      edits: { namePattern: null, replace: [], set: {}, bidFactor: null },
      seen: [],
    });
    goHome();
  };
  return (
    <>
      <h2 className="shrink-0 truncate text-[15px]" title={campaign.name}>
        {campaign.name}
      </h2>
      <Panel title="Places">
        {places.length === 0 ? (
          <p className="text-ink-2">
            <span className="text-ochre">◆</span> None: it shows in the whole world.
          </p>
        ) : (
          <ul>
            {places.map((place) => (
              <li key={place.id} className="flex items-center gap-2 py-0.5">
                <span className="min-w-0 flex-1 truncate" title={place.name}>
                  {placeWords([place])}{' '}
                  <span className="text-ink-3">{place.name.split(', ').slice(1).join(', ')}</span>
                </span>
                <Button
                  tone="quiet"
                  className="px-1.5 py-0"
                  aria-label={`Take away ${place.name}`}
                  onClick={() => remove(place)}
                >
                  Take away
                </Button>
              </li>
            ))}
          </ul>
        )}
      </Panel>
      <Panel title="Add a place">
        <div className="flex flex-wrap items-end gap-1.5">
          <Choice
            label="In or out"
            value={side}
            options={[
              { value: 'in', label: 'in' },
              { value: 'out', label: 'out' },
            ]}
            onChange={setSide}
          />
          <TextField
            label="Radius"
            className="w-[82px]"
            value={radius}
            placeholder="none"
            onChange={(event) => setRadius(event.target.value)}
          />
          <TextField
            label="Modifier"
            className="w-[82px]"
            value={modifier}
            placeholder="none"
            onChange={(event) => setModifier(event.target.value)}
          />
          <Button onClick={() => setPasting(true)}>Paste names…</Button>
        </div>
        <PlaceFinder known={known.data ?? []} onChoose={(name) => add([name])} />
        {problem && (
          <p role="alert" className="mt-1 text-brick">
            {problem}
          </p>
        )}
      </Panel>
      {known.data && (
        <PlaceMap known={known.data} places={places} onChoose={(place) => add([place.fullName])} />
      )}
      {places.length > 0 && different.length > 0 && (
        <Button onClick={copy}>Give these places to {plural(different.length, 'other campaign')} too</Button>
      )}
      {pasting && (
        <PasteDialog
          onAdd={(names) => {
            add(names);
            setPasting(false);
          }}
          onClose={() => setPasting(false)}
        />
      )}
    </>
  );
}

/** A place by its name: what is typed finds it under any of its names. */
function PlaceFinder({
  known,
  onChoose,
}: {
  known: readonly KnownPlace[];
  onChoose: (name: string) => void;
}) {
  const [text, setText] = useState('');
  const read = useReadPlaces();
  const wanted = text.trim().toLowerCase();
  const found =
    wanted === ''
      ? []
      : known
          .filter((place) =>
            [place.fullName, ...place.others].some((name) => name.toLowerCase().startsWith(wanted)),
          )
          .slice(0, mostFound);
  const choose = (name: string) => {
    setText('');
    onChoose(name);
  };
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    if (!text.trim()) return;
    // What is typed is read by the rules by which lists are: a code, or a name with what it lies in.
    const [reading] = await read([text]);
    const only = reading?.places.length === 1 ? reading.places[0] : found[0]?.fullName;
    choose(only ?? text);
  };
  return (
    <form className="mt-2" onSubmit={(event) => void submit(event)}>
      <TextField
        label="Country, region or town"
        value={text}
        placeholder="Leeds"
        onChange={(event) => setText(event.target.value)}
      />
      {found.length > 0 && (
        <ul className="mt-1" aria-label="Places found">
          {found.map((place) => (
            <li key={place.fullName}>
              <button
                type="button"
                className="w-full truncate rounded-sm px-1.5 py-0.5 text-left hover:bg-plum-wash"
                onClick={() => choose(place.fullName)}
              >
                {place.fullName} <span className="text-ink-3">{place.kind}</span>
              </button>
            </li>
          ))}
        </ul>
      )}
    </form>
  );
}
