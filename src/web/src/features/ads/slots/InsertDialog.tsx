import { useState, type FormEvent } from 'react';
import { useMutation } from '@tanstack/react-query';
import { useAccount } from '../../../api/account';
import { ApiProblem, answer, api, type Schemas } from '../../../api/client';
import { Button } from '../../../ui/Button';
import { Choice } from '../../../ui/Choice';
import { Dialog } from '../../../ui/Dialog';
import { TextField } from '../../../ui/Field';
import { RadioGroup } from '../../../ui/RadioGroup';
import { insertedCases, insertedNames } from './insertions';

interface Props {
  /** What is inserted now; none for something new. */
  insertion: Schemas['Insertion'] | null;
  onInsert: (written: string) => void;
  onClose: () => void;
}

/** What is inserted into a text, with which letters, and what stands there when it does not fit. */
export function InsertDialog({ insertion, onInsert, onClose }: Props) {
  const account = useAccount();
  const [name, setName] = useState(insertion?.name ?? 'keyword');
  const [letters, setLetters] = useState(insertion?.case ?? 'everyWord');
  const [fallback, setFallback] = useState(insertion?.fallback ?? '');
  const [day, setDay] = useState(insertion?.day ?? '');
  const write = useMutation({
    mutationFn: () =>
      answer(
        api.POST('/api/accounts/{accountId}/texts/insertion', {
          params: { path: { accountId: account.id } },
          body: { name, case: letters, fallback, day: name === 'countdown' && day !== '' ? day : null },
        }),
      ),
    onSuccess: ({ text }) => {
      onInsert(text);
      onClose();
    },
  });
  const problem = write.error instanceof ApiProblem ? write.error : null;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    write.mutate();
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title={insertion ? 'Change inserted words' : 'Insert words'}
      footer={
        <>
          <Button onClick={onClose}>Leave</Button>
          <Button tone="ember" type="submit" form="insertion" disabled={write.isPending}>
            {insertion ? 'Change' : 'Insert'}
          </Button>
        </>
      }
    >
      <form id="insertion" onSubmit={submit} className="flex flex-col gap-3">
        <label className="flex flex-col items-start gap-1">
          <span className="text-[12.5px] text-ink-2">What is inserted</span>
          <Choice label="What is inserted" value={name} options={insertedNames} onChange={setName} />
        </label>
        {name === 'countdown' ? (
          <TextField
            label="Until"
            type="date"
            className="w-40"
            value={day}
            problem={problem?.fields['day'] ? problem.message : null}
            onChange={(event) => setDay(event.target.value)}
            hint="Counts whole days in the account’s time zone."
          />
        ) : (
          <RadioGroup label="Letters" value={letters} options={insertedCases} onChange={setLetters} />
        )}
        <TextField
          label="When it does not fit"
          value={fallback}
          autoFocus
          placeholder="Piano Tuning"
          problem={problem && !problem.fields['day'] ? problem.message : null}
          onChange={(event) => setFallback(event.target.value)}
          hint={
            name === 'countdown'
              ? 'Stands there when the day has come.'
              : 'Stands there when the words are too long or not known. No word is ever cut.'
          }
        />
      </form>
    </Dialog>
  );
}
