import { useQuery } from '@tanstack/react-query';
import { useState, type FormEvent } from 'react';
import { useAccount } from '../../api/account';
import { answer, api } from '../../api/client';
import { useKinds } from '../../api/kinds';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { TextField } from '../../ui/Field';
import { isHome } from '../../ui/home';
import { Segments } from '../../ui/Segments';
import { Circumstances } from './Circumstances';
import { Labelled } from './Labelled';
import { copies, hours, type Question } from './question';

const anywhere = '-';

interface Props {
  question: Question;
  asking: boolean;
  /** The page was opened with this form, not turned to: then typing can begin at once. */
  first: boolean;
  onAsk: (question: Question) => void;
}

/** Who searches for what. Whatever is chosen is traced at once when there is a search. */
export function TraceForm({ question, asking, first, onAsk }: Props) {
  const [text, setText] = useState(question.text);
  // What the address says goes before what is typed, as after a step back.
  const [asked, setAsked] = useState(question.text);
  if (asked !== question.text) {
    setAsked(question.text);
    setText(question.text);
  }
  const [page, setPage] = useState(question.page ?? '');
  const [askedPage, setAskedPage] = useState(question.page);
  if (askedPage !== question.page) {
    setAskedPage(question.page);
    setPage(question.page ?? '');
  }
  const [language, setLanguage] = useState(question.language ?? '');
  const [askedLanguage, setAskedLanguage] = useState(question.language);
  if (askedLanguage !== question.language) {
    setAskedLanguage(question.language);
    setLanguage(question.language ?? '');
  }
  const account = useAccount();
  const audiences =
    useKinds()
      .of('audience')
      .fields.find((field) => field.isName)?.limits.oneOf ?? [];
  const places = useQuery({
    queryKey: [account.id, 'places'],
    enabled: question.copy === 'live',
    staleTime: Infinity,
    queryFn: () =>
      answer(
        api.GET('/api/accounts/{accountId}/trace/places', { params: { path: { accountId: account.id } } }),
      ),
  });
  const choose = (change: Partial<Question>) =>
    onAsk({
      ...question,
      text: text.trim(),
      page: page.trim() || null,
      language: language.trim() || null,
      ...change,
    });
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (text.trim()) choose({});
  };
  return (
    <form onSubmit={submit} className="flex min-h-0 flex-col gap-3 overflow-auto">
      <TextField
        {...isHome}
        label="Search"
        autoFocus={first}
        maxLength={400}
        placeholder="piano tuner york"
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      <Circumstances value={question} onChange={choose} />
      {question.site === 'content' && (
        <TextField
          label="Page"
          placeholder="any page"
          maxLength={400}
          value={page}
          onChange={(event) => setPage(event.target.value)}
        />
      )}
      {audiences.length > 0 && (
        <Labelled name="Belongs to">
          <Choice
            label="Belongs to"
            className="w-full"
            value={question.audiences[0] ?? anywhere}
            options={[
              { value: anywhere, label: 'No audience known' },
              ...audiences.map((name) => ({ value: name, label: capitalised(name) })),
            ]}
            onChange={(name) => choose({ audiences: name === anywhere ? [] : [name] })}
          />
        </Labelled>
      )}
      <TextField
        label="Language"
        placeholder="any language"
        maxLength={40}
        value={language}
        onChange={(event) => setLanguage(event.target.value)}
      />
      <Labelled name="Read from">
        <Segments
          label="Read from"
          value={question.copy}
          segments={copies}
          onChange={(copy) => choose({ copy })}
        />
      </Labelled>
      {question.copy === 'live' && (
        <div className="grid grid-cols-2 gap-2">
          <Labelled name="Place">
            <Choice
              label="Place"
              className="w-full"
              value={question.place ?? anywhere}
              options={[
                { value: anywhere, label: 'Anywhere' },
                ...(places.data ?? []).map((place) => ({
                  value: place.name,
                  label: capitalised(place.name),
                })),
              ]}
              onChange={(place) => choose({ place: place === anywhere ? null : place })}
            />
          </Labelled>
          <Labelled name="Hour">
            <Choice
              label="Hour"
              className="w-full"
              value={question.hour === null ? 'now' : String(question.hour)}
              options={hours}
              onChange={(hour) => choose({ hour: hour === 'now' ? null : Number(hour) })}
            />
          </Labelled>
        </div>
      )}
      <Button type="submit" tone="ember" disabled={text.trim() === ''} aria-busy={asking}>
        Trace
      </Button>
      <p className="text-ink-3">
        {question.copy === 'live'
          ? 'As the network would answer it today, with what was spent until now.'
          : 'As the account stands with all that is not published yet, once it is approved.'}
      </p>
    </form>
  );
}

const capitalised = (name: string) => name.replace(/\b\w/g, (letter) => letter.toUpperCase());
