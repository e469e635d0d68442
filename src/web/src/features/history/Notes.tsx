import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useAccount } from '../../api/account';
import { answer, api, ApiProblem } from '../../api/client';
import { tell, useAct } from '../../api/hooks';
import { Button } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { TextArea, TextField } from '../../ui/Field';
import { fullDay, moment, todayIn } from '../../ui/format';
import { PageHead } from '../../ui/Panel';
import type { Note } from './useNotes';

/** A note as a line among the steps. */
export function NoteLine({ note }: { note: Note }) {
  return (
    <>
      <span className="line-clamp-2 block">{note.text}</span>
      <span className="text-[12px] text-ink-3">
        Agreed {fullDay(note.day)} · {note.person}
      </span>
    </>
  );
}

/** A note as a whole, and what can be done with it. */
export function NoteSection({ note, onWrite }: { note: Note; onWrite: (note: Note) => void }) {
  const account = useAccount();
  const { act, busy } = useAct([account.id, 'notes']);
  const remove = () =>
    act(
      () =>
        answer(
          api.DELETE('/api/accounts/{accountId}/notes/{noteId}', {
            params: { path: { accountId: account.id, noteId: note.id } },
          }),
        ),
      'The note is gone.',
    );
  return (
    <>
      <PageHead title={`Agreed ${fullDay(note.day)}`} level={2}>
        <Button disabled={!account.mayChange} onClick={() => onWrite(note)}>
          Write it anew…
        </Button>
        <Button disabled={!account.mayChange || busy} onClick={() => void remove()}>
          Remove
        </Button>
      </PageHead>
      <p className="max-w-[72ch] px-3 py-3 whitespace-pre-wrap">{note.text}</p>
      <p className="px-3 text-[12.5px] text-ink-3">
        Written by {note.person}, {moment(note.madeAt)}
        {note.changedAt && `; changed ${moment(note.changedAt)}`}
      </p>
    </>
  );
}

/** A note is written: the day that it is about, and what was agreed. */
export function NoteDialog({ note, onClose }: { note: Note | null; onClose: () => void }) {
  const account = useAccount();
  const queries = useQueryClient();
  const [day, setDay] = useState(note?.day ?? todayIn(account.timeZone));
  const [text, setText] = useState(note?.text ?? '');
  const [problem, setProblem] = useState<string | null>(null);
  const write = async () => {
    setProblem(null);
    const body = { day, text };
    try {
      await (note
        ? answer(
            api.PUT('/api/accounts/{accountId}/notes/{noteId}', {
              params: { path: { accountId: account.id, noteId: note.id } },
              body,
            }),
          )
        : answer(
            api.POST('/api/accounts/{accountId}/notes', {
              params: { path: { accountId: account.id } },
              body,
            }),
          ));
      await queries.invalidateQueries({ queryKey: [account.id, 'notes'] });
      onClose();
    } catch (error) {
      if (error instanceof ApiProblem && error.fields['text']) setProblem(error.message);
      else tell(error);
    }
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title={note ? 'Write the note anew' : 'Write a note'}
      description="What was agreed with the client, for whoever works here after you. It stands in History at its day."
      footer={
        <Button tone="ember" disabled={!text.trim() || !day} onClick={() => void write()}>
          Keep it
        </Button>
      }
    >
      <div className="space-y-3">
        <TextArea
          label="What was agreed"
          rows={5}
          value={text}
          problem={problem}
          onChange={(event) => setText(event.target.value)}
          onKeyDown={(event) => {
            if (event.key === 'Enter' && (event.ctrlKey || event.metaKey) && text.trim()) void write();
          }}
        />
        <TextField
          label="On which day"
          type="date"
          className="w-[180px]"
          value={day}
          onChange={(event) => setDay(event.target.value)}
        />
      </div>
    </Dialog>
  );
}
