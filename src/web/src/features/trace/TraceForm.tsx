import { useState, type FormEvent } from 'react';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { TextField } from '../../ui/Field';
import { isHome } from '../../ui/home';
import { Segments } from '../../ui/Segments';
import { copies, devices, sites, type Question } from './question';

interface Props {
  question: Question;
  asking: boolean;
  onAsk: (question: Question) => void;
}

/** Who searches for what. Whatever is chosen is traced at once when there is a search. */
export function TraceForm({ question, asking, onAsk }: Props) {
  const [text, setText] = useState(question.text);
  // What the address says goes before what is typed, as after a step back.
  const [asked, setAsked] = useState(question.text);
  if (asked !== question.text) {
    setAsked(question.text);
    setText(question.text);
  }
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (text.trim()) onAsk({ ...question, text: text.trim() });
  };
  const choose = (change: Partial<Question>) => onAsk({ ...question, text: text.trim(), ...change });
  return (
    <form onSubmit={submit} className="flex min-h-0 flex-col gap-3 overflow-auto p-3">
      <h1 className="text-[17px]">Trace a search</h1>
      <TextField
        {...isHome}
        label="Search"
        autoFocus
        maxLength={400}
        placeholder="piano tuner york"
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      <div className="grid grid-cols-2 gap-2">
        <Labelled name="Device">
          <Choice
            label="Device"
            className="w-full"
            value={question.device}
            options={devices}
            onChange={(device) => choose({ device })}
          />
        </Labelled>
        <Labelled name="Where">
          <Choice
            label="Where"
            className="w-full"
            value={question.site}
            options={sites}
            onChange={(site) => choose({ site })}
          />
        </Labelled>
      </div>
      <Labelled name="Read from">
        <Segments
          label="Read from"
          value={question.copy}
          segments={copies}
          onChange={(copy) => choose({ copy })}
        />
      </Labelled>
      <Button type="submit" tone="ember" disabled={text.trim() === ''} aria-busy={asking}>
        Trace
      </Button>
      <p className="text-ink-3">
        {question.copy === 'live'
          ? 'As the network would answer it at this moment of its clock.'
          : 'As the account stands with all that is not published yet, once it is approved.'}
      </p>
    </form>
  );
}

function Labelled({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <div>
      <div aria-hidden className="mb-0.5 text-[12px] font-semibold text-ink-2">
        {name}
      </div>
      {children}
    </div>
  );
}
