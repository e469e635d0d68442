import { useState, type FormEvent } from 'react';
import type { ItemKind, MatchType } from '../../api/client';
import { useKinds } from '../../api/kinds';
import { useCommand } from '../../api/hooks';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Dialog } from '../../ui/Dialog';
import { TextArea } from '../../ui/Field';
import { FieldEditor, isNothing, type Input } from './FieldEditor';
import { usePlace, type Place } from './PlaceChoice';

interface Props {
  kind: ItemKind;
  place: Place;
  onClose: () => void;
}

/** The match types to choose from, as options. */
export function useMatches(): { value: MatchType; label: string }[] {
  return useKinds()
    .choices('match')
    .map(({ key, name }) => ({ value: key as MatchType, label: name }));
}

/** Adds many keywords or negatives, one on each line. */
export function WordsDialog({ kind, place, onClose }: Props) {
  const description = useKinds().of(kind);
  const where = usePlace(
    description.levels.filter((level) => level !== 'list'),
    place,
  );
  const matches = useMatches();
  const amounts = description.fields.filter((field) => field.form === 'amount');
  const [lines, setLines] = useState('');
  const [values, setValues] = useState<Record<string, Input>>({});
  const [match, setMatch] = useState<MatchType>('phrase');
  const [problems, setProblems] = useState<Record<string, string>>({});
  const run = useCommand({
    onProblem: (told) => setProblems({ [Object.keys(told.fields)[0] ?? 'lines']: told.message }),
  });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    run.mutate(
      {
        type: 'addWords',
        kind,
        lines,
        match,
        places: where.ids,
        values: Object.fromEntries(Object.entries(values).filter(([, value]) => !isNothing(value))),
      },
      { onSuccess: onClose },
    );
  };
  const known = ['lines', ...amounts.map((field) => field.name)];
  const other = Object.entries(problems).find(([field]) => !known.includes(field))?.[1];
  return (
    <Dialog open onClose={onClose} title={`Add ${description.plural}`}>
      <form className="space-y-3" onSubmit={submit}>
        {where.choices}
        <TextArea
          label="One on each line"
          rows={7}
          autoFocus
          value={lines}
          problem={problems.lines ?? other}
          hint={'[exact], "phrase" and +all +words are understood; bare words become what is chosen below.'}
          onChange={(event) => setLines(event.target.value)}
        />
        <div className="flex items-center gap-2">
          Bare words are{' '}
          <Choice label="Match type of bare words" value={match} options={matches} onChange={setMatch} />
        </div>
        {amounts.map((field) => (
          <FieldEditor
            key={field.name}
            field={field}
            value={values[field.name] ?? ''}
            problem={problems[field.name]}
            onChange={(value) => setValues({ ...values, [field.name]: value })}
          />
        ))}
        <div className="flex justify-end gap-2 pt-1">
          <Button onClick={onClose}>Leave</Button>
          <Button
            type="submit"
            tone="ember"
            disabled={run.isPending || where.missing !== null || !lines.trim()}
          >
            Add
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
