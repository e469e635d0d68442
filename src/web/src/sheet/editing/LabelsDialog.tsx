import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { answer, api, type Command, type Schemas } from '../../api/client';
import { useAccount } from '../../api/account';
import { Choice } from '../../ui/Choice';
import { TextField } from '../../ui/Field';
import { PreviewDialog } from './PreviewDialog';
import type { Chosen } from '../selection';

interface Props {
  chosen: Chosen;
  onClose: () => void;
  onDone: (result: Schemas['CommandAnswer'], command: Command) => void;
  onShow?: (stepId: number) => void;
}

const split = (text: string) =>
  text
    .split(';')
    .map((label) => label.trim())
    .filter(Boolean);

/** Puts labels on all that is selected, or takes them off. */
export function LabelsDialog({ chosen, onClose, onDone, onShow }: Props) {
  const account = useAccount();
  const [way, setWay] = useState<'add' | 'remove'>('add');
  const [text, setText] = useState('');
  const known = useQuery({
    queryKey: [account.id, 'labels'],
    queryFn: () =>
      answer(api.GET('/api/accounts/{accountId}/labels', { params: { path: { accountId: account.id } } })),
  });
  const labels = split(text);
  const command: Command | null =
    labels.length > 0
      ? {
          type: 'setLabels',
          ...chosen,
          add: way === 'add' ? labels : [],
          remove: way === 'remove' ? labels : [],
        }
      : null;
  return (
    <PreviewDialog title="Labels" command={command} onClose={onClose} onDone={onDone} onShow={onShow}>
      <div className="flex items-end gap-2">
        <Choice
          label="What is done"
          value={way}
          options={[
            { value: 'add', label: 'Put on' },
            { value: 'remove', label: 'Take off' },
          ]}
          onChange={setWay}
        />
        <TextField
          label="Labels"
          hideLabel
          className="flex-1"
          autoFocus
          placeholder="summer; check again"
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
      </div>
      <div className="flex flex-wrap gap-1.5">
        {known.data?.map((each) => (
          <button
            key={each.label}
            type="button"
            className="rounded-sm bg-sunk px-2 text-ink-2 hover:bg-plum-wash"
            onClick={() => setText([...labels, each.label].join('; '))}
          >
            {each.label} <span className="text-ink-3">{each.items}</span>
          </button>
        ))}
      </div>
    </PreviewDialog>
  );
}
