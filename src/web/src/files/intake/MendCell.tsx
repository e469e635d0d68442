import { useEffect, useRef, useState, type KeyboardEvent } from 'react';
import type { Then } from './useCellCursor';

interface Props {
  text: string;
  label: string;
  onDone: (text: string, then: Then) => void;
  onLeave: () => void;
}

/** A cell of a list, written anew: Enter keeps it and goes down, Tab goes sideways, Esc leaves it. */
export function MendCell({ text: before, label, onDone, onLeave }: Props) {
  const [text, setText] = useState(before);
  const input = useRef<HTMLInputElement>(null);
  const over = useRef(false);
  useEffect(() => input.current?.select(), []);
  const done = (then: Then) => {
    if (over.current) return;
    over.current = true;
    onDone(text, then);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    event.stopPropagation();
    if (event.key === 'Escape') {
      over.current = true;
      onLeave();
    } else if ((event.key === 'Enter' && !event.ctrlKey) || event.key === 'Tab') {
      event.preventDefault();
      done(event.key === 'Enter' ? 'down' : event.shiftKey ? 'left' : 'right');
    }
  };
  return (
    <input
      ref={input}
      aria-label={label}
      value={text}
      className="h-[23px] w-full min-w-24 rounded-[3px] border border-plum bg-white px-1.5 text-ink outline-none"
      onChange={(event) => setText(event.target.value)}
      onKeyDown={onKeyDown}
      onBlur={() => done('stay')}
    />
  );
}
