import { useRef, useState, type FormEvent } from 'react';
import { Button } from '../../../ui/Button';
import { TextArea } from '../../../ui/Field';
import { isHome } from '../../../ui/home';
import { Circumstances } from '../Circumstances';
import type { Terms } from './useTerms';

interface Props {
  /** What is pasted: it stays while single searches of it are looked at. */
  text: string;
  onText: (text: string) => void;
  asking: boolean;
  onAsk: (terms: Terms) => void;
}

/** A list of searches, pasted or from a file. */
export function TermsForm({ text, onText, asking, onAsk }: Props) {
  const [at, setAt] = useState<Pick<Terms, 'device' | 'site'>>({ device: 'phone', site: 'search' });
  const file = useRef<HTMLInputElement>(null);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (text.trim()) onAsk({ ...at, content: new Blob([text]), name: 'the pasted list' });
  };
  return (
    <form onSubmit={submit} className="flex min-h-0 flex-col gap-3 overflow-auto">
      <TextArea
        {...isHome}
        label="Searches, one a line"
        rows={8}
        placeholder={'piano tuner york\nhow to tune a piano\nused pianos leeds'}
        value={text}
        onChange={(event) => onText(event.target.value)}
      />
      <Circumstances value={at} onChange={(change) => setAt({ ...at, ...change })} />
      <Button type="submit" tone="ember" disabled={text.trim() === ''} aria-busy={asking}>
        Trace all of them
      </Button>
      <input
        ref={file}
        type="file"
        hidden
        aria-label="File of searches"
        accept=".csv,.tsv,.txt,.xlsx"
        onChange={(event) => {
          const chosen = event.target.files?.[0];
          if (chosen) onAsk({ ...at, content: chosen, name: chosen.name });
          event.target.value = '';
        }}
      />
      <Button onClick={() => file.current?.click()}>Choose a file…</Button>
      <p className="text-ink-3">
        CSV, TSV, XLSX or plain lines, up to 200,000 searches. Where a column is headed “search term”,
        “search” or “keyword”, that one is read, else the first. By the working copy.
      </p>
    </form>
  );
}
