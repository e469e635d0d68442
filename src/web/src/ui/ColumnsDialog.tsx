import type { ReactNode } from 'react';
import { Button } from './Button';
import { Dialog } from './Dialog';
import { CheckField } from './Field';

interface Props {
  known: readonly { key: string; title: string }[];
  shown: readonly string[];
  description: string;
  onChange: (shown: string[]) => void;
  onUsual: () => void;
  onClose: () => void;
  /** What else there is to do about columns. */
  more?: ReactNode;
}

/** Which columns there are, in which order. */
export function ColumnsDialog({ known, shown, description, onChange, onUsual, onClose, more }: Props) {
  const there = shown.filter((key) => known.some((column) => column.key === key));
  const hidden = known.filter((column) => !there.includes(column.key));
  const move = (key: string, by: number) => {
    const next = there.filter((each) => each !== key);
    next.splice(Math.max(0, there.indexOf(key) + by), 0, key);
    onChange(next);
  };
  const toggle = (key: string, on: boolean) =>
    onChange(on ? [...there, key] : there.filter((each) => each !== key));
  const title = (key: string) => known.find((column) => column.key === key)?.title ?? key;
  return (
    <Dialog
      open
      onClose={onClose}
      title="Columns"
      description={description}
      footer={
        <>
          {more}
          <Button onClick={onUsual}>As usual</Button>
        </>
      }
    >
      <ul className="space-y-0.5">
        {there.map((key, place) => (
          <li key={key} className="flex items-center gap-2">
            <span className="flex-1">
              <CheckField label={title(key)} checked onChange={(on) => toggle(key, on)} />
            </span>
            <Button
              tone="quiet"
              aria-label={`${title(key)} further left`}
              disabled={place === 0}
              onClick={() => move(key, -1)}
            >
              ↑
            </Button>
            <Button
              tone="quiet"
              aria-label={`${title(key)} further right`}
              disabled={place === there.length - 1}
              onClick={() => move(key, 1)}
            >
              ↓
            </Button>
          </li>
        ))}
        {hidden.map((column) => (
          <li key={column.key} className="py-1">
            <CheckField label={column.title} checked={false} onChange={(on) => toggle(column.key, on)} />
          </li>
        ))}
      </ul>
    </Dialog>
  );
}
