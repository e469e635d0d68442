import { useState } from 'react';
import type { Command, Schemas } from '../../api/client';
import { Choice } from '../../ui/Choice';
import { CheckField, TextField } from '../../ui/Field';
import { PreviewDialog } from './PreviewDialog';
import type { Chosen } from './selection';

type TextField_ = Schemas['TextField'];
type Operation = Schemas['TextOperation'];

const fieldNames: Record<TextField_, string> = {
  name: 'names',
  words: 'words of keywords and negatives',
  headlines: 'headlines',
  descriptions: 'descriptions',
  displayPath: 'display paths',
  finalUrl: 'final URLs',
};

const operations: { value: Operation; label: string }[] = [
  { value: 'replace', label: 'Find and replace' },
  { value: 'append', label: 'Put behind' },
  { value: 'prepend', label: 'Put in front' },
  { value: 'capitalWords', label: 'Capital First Letters' },
  { value: 'sentenceCase', label: 'Sentence case' },
  { value: 'lowerCase', label: 'small letters' },
  { value: 'upperCase', label: 'CAPITALS' },
];

interface Props {
  chosen: Chosen;
  /** The fields that the selection has. */
  fields: readonly TextField_[];
  onClose: () => void;
  onDone: (result: Schemas['CommandAnswer'], command: Command) => void;
}

/** Changes the texts of all that is selected, with a look at every one of them on the way. */
export function EditTextsDialog({ chosen, fields, onClose, onDone }: Props) {
  const [operation, setOperation] = useState<Operation>('replace');
  const [find, setFind] = useState('');
  const [value, setValue] = useState('');
  const [isExpression, setIsExpression] = useState(false);
  const [matchCase, setMatchCase] = useState(false);
  const [wholeWords, setWholeWords] = useState(false);
  const [inFields, setInFields] = useState<readonly TextField_[]>(
    fields.filter((field) => field !== 'finalUrl'),
  );
  const replaces = operation === 'replace';
  const adds = operation === 'append' || operation === 'prepend';
  const ready = inFields.length > 0 && (replaces ? find !== '' : !adds || value.trim() !== '');
  const command: Command | null = ready
    ? {
        type: 'editTexts',
        ...chosen,
        fields: [...inFields],
        operation,
        value,
        find: replaces ? find : null,
        isExpression,
        matchCase,
        wholeWords,
      }
    : null;
  return (
    <PreviewDialog title="Change texts" command={command} onClose={onClose} onDone={onDone}>
      <div className="flex items-end gap-2">
        <Choice label="What is done" value={operation} options={operations} onChange={setOperation} />
        {replaces && (
          <TextField
            label="Find"
            className="flex-1"
            autoFocus
            value={find}
            onChange={(event) => setFind(event.target.value)}
          />
        )}
        {(replaces || adds) && (
          <TextField
            label={replaces ? 'Put in place' : 'Text'}
            className="flex-1"
            autoFocus={adds}
            value={value}
            onChange={(event) => setValue(event.target.value)}
          />
        )}
      </div>
      {replaces && (
        <div className="flex flex-wrap gap-x-4">
          <CheckField label="capitals matter" checked={matchCase} onChange={setMatchCase} />
          <CheckField label="whole words only" checked={wholeWords} onChange={setWholeWords} />
          <CheckField
            label="regular expression, $1 for its first group"
            checked={isExpression}
            onChange={setIsExpression}
          />
        </div>
      )}
      {fields.length > 1 && (
        <div className="flex flex-wrap gap-x-4">
          <span className="text-ink-3">in</span>
          {fields.map((field) => (
            <CheckField
              key={field}
              label={fieldNames[field]}
              checked={inFields.includes(field)}
              onChange={(on) =>
                setInFields(on ? [...inFields, field] : inFields.filter((each) => each !== field))
              }
            />
          ))}
        </div>
      )}
    </PreviewDialog>
  );
}
