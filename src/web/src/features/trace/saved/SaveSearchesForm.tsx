import { useState, type FormEvent } from 'react';
import { usePlace } from '../../../sheet/editing/PlaceChoice';
import { Button } from '../../../ui/Button';
import { Choice } from '../../../ui/Choice';
import { TextArea } from '../../../ui/Field';
import { plural } from '../../../ui/format';
import { isHome } from '../../../ui/home';
import { Circumstances } from '../Circumstances';
import { expectations, type Expectation } from './expectations';
import { Labelled } from '../Labelled';
import type { Question } from '../question';
import { useSavedSearchActs } from './useSavedSearches';

const nowhere = { campaignId: null, adGroupId: null };

/** Searches, one a line, and what should happen to all of them. */
export function SaveSearchesForm() {
  const [text, setText] = useState('');
  const [at, setAt] = useState<Pick<Question, 'device' | 'site'>>({ device: 'phone', site: 'search' });
  const [expectation, setExpectation] = useState<Expectation>('shows');
  const place = usePlace(['adGroup'], nowhere);
  const { save } = useSavedSearchActs();
  const lines = text
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => line !== '');
  const from = expectation === 'showsFrom';
  const ready = lines.length > 0 && !(from && place.missing !== null);
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    if (!ready) return;
    const done = await save(
      lines.map((line) => ({
        ...at,
        text: line,
        place: null,
        expectation,
        adGroupId: from ? (place.ids.adGroupIds[0] ?? null) : null,
      })),
    );
    if (done) setText('');
  };
  return (
    <form onSubmit={(event) => void submit(event)} className="flex min-h-0 flex-col gap-3 overflow-auto">
      <TextArea
        {...isHome}
        label="Searches, one a line"
        rows={5}
        placeholder={'piano tuner york\npiano removals'}
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      <Circumstances value={at} onChange={(change) => setAt({ ...at, ...change })} />
      <Labelled name="What should happen">
        <Choice
          label="What should happen"
          className="w-full"
          value={expectation}
          options={expectations}
          onChange={setExpectation}
        />
      </Labelled>
      {from && place.choices}
      <Button type="submit" tone="ember" disabled={!ready}>
        {lines.length > 0 ? `Save ${plural(lines.length, 'search', 'searches')}` : 'Save'}
      </Button>
      <p className="text-ink-3">
        Each is tried again whenever something changes that can touch it. One that fails is a caution in
        Checks.
      </p>
    </form>
  );
}
