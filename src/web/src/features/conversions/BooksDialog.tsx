import { useRef, useState, type FormEvent } from 'react';
import { useMutation } from '@tanstack/react-query';
import { useAccount } from '../../api/account';
import { problemOf, requestToken, type Schemas } from '../../api/client';
import { Button } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { TextArea } from '../../ui/Field';
import { whole } from '../../ui/format';

type Books = Schemas['BooksAnswer'];

/** Sales that the client brings from outside: looked at first, then brought in. */
export function BooksDialog({ onClose }: { onClose: () => void }) {
  const [text, setText] = useState('');
  const [file, setFile] = useState<File | null>(null);
  const [done, setDone] = useState<Books | null>(null);
  const picker = useRef<HTMLInputElement>(null);
  const content = file ?? text;
  const books = useBooks();
  const forget = () => {
    books.reset();
    setDone(null);
  };
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (books.isPending) return;
    if (books.data) books.mutate({ content, preview: false }, { onSuccess: setDone });
    else books.mutate({ content, preview: true });
  };
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title="Bring in own books"
      description="Sales with what they came from: the click id that the link carried, else the caller with the call time, else the address that was left on the site (hashed here, or by you). Columns in any order: one of these, time, and where you have them conversion action, value, currency, reference, change (taken back). Where none of these is known, totals do: day, campaign, sales, and where you have them ad group, keyword, match, device, value; they stand in Results as own sales. What is brought in twice is there once."
    >
      <form onSubmit={submit} className="space-y-3">
        <TextArea
          label="Paste rows"
          rows={6}
          value={file ? '' : text}
          disabled={file !== null}
          placeholder={'click id\ttime\tconversion action\tvalue\treference'}
          onChange={(event) => {
            forget();
            setText(event.target.value);
          }}
        />
        <div className="flex items-center gap-2">
          <input
            ref={picker}
            type="file"
            className="sr-only"
            tabIndex={-1}
            aria-hidden
            accept=".csv,.tsv,.txt,.xlsx"
            onChange={(event) => {
              forget();
              setFile(event.target.files?.[0] ?? null);
            }}
          />
          <Button onClick={() => picker.current?.click()}>Choose a file…</Button>
          {file && (
            <>
              <span>{file.name}</span>
              <Button
                tone="quiet"
                onClick={() => {
                  forget();
                  setFile(null);
                }}
              >
                Leave it out
              </Button>
            </>
          )}
        </div>
        <div aria-live="polite">
          {books.isError && <p className="text-brick">{books.error.message}</p>}
          {books.data && <Outcome books={books.data} isDone={done !== null} />}
        </div>
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>{done ? 'Close' : 'Leave'}</Button>
          {!done && (
            <Button
              type="submit"
              tone={books.data ? 'ember' : 'plum'}
              disabled={
                (file === null && text.trim() === '') ||
                (books.data !== undefined && books.data.changes === 0)
              }
            >
              {books.data ? `Bring in ${whole(books.data.changes)}` : 'Look at it'}
            </Button>
          )}
        </div>
      </form>
    </Dialog>
  );
}

function Outcome({ books, isDone }: { books: Books; isDone: boolean }) {
  return (
    <>
      <p>
        <b>{whole(books.rows)} rows: </b>
        {books.counts.map((each) => `${whole(each.lines)} ${each.says}`).join(', ') || 'none can be taken'}.
        {isDone && ' They are in the figures when the next report comes.'}
      </p>
      {books.problemCount > 0 && (
        <>
          <p className="mt-1 text-ochre">
            ◆ {whole(books.problemCount)} {books.problemCount === 1 ? 'row is' : 'rows are'} left out:
          </p>
          <ul
            className="max-h-[180px] overflow-auto text-ink-2"
            tabIndex={0}
            aria-label="Rows that are left out"
          >
            {books.problems.map((problem) => (
              <li key={`${problem.row} ${problem.field}`}>{problem.message}</li>
            ))}
          </ul>
        </>
      )}
    </>
  );
}

/** Sends the list as it is: the server reads it, whatever its form. */
function useBooks() {
  const account = useAccount();
  return useMutation({
    mutationFn: async ({ content, preview }: { content: string | File; preview: boolean }) => {
      const response = await fetch(`/api/accounts/${account.id}/conversions/books?preview=${preview}`, {
        method: 'POST',
        body: content,
        headers: { 'Content-Type': 'application/octet-stream', 'X-Fendrik-Token': requestToken() },
      });
      if (response.ok) return (await response.json()) as Books;
      const body: unknown = await response.json().catch(() => null);
      throw problemOf(response.status, body);
    },
  });
}
