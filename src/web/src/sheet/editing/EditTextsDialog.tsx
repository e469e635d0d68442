import { useState } from 'react';
import type { Command, ItemKind, Schemas } from '../../api/client';
import { useKinds, type ItemField } from '../../api/kinds';
import { Choice } from '../../ui/Choice';
import { CheckField, TextField } from '../../ui/Field';
import { PreviewDialog } from './PreviewDialog';
import type { Chosen } from '../selection';

type Operation = Schemas['TextOperation'];

const operations: { value: Operation; label: string }[] = [
  { value: 'replace', label: 'Find and replace' },
  { value: 'set', label: 'Set to' },
  { value: 'append', label: 'Put behind' },
  { value: 'prepend', label: 'Put in front' },
  { value: 'capitalWords', label: 'Capital First Letters' },
  { value: 'sentenceCase', label: 'Sentence case' },
  { value: 'lowerCase', label: 'small letters' },
  { value: 'upperCase', label: 'CAPITALS' },
];

interface Props {
  chosen: Chosen;
  kinds: ReadonlySet<ItemKind>;
  onClose: () => void;
  onDone: (result: Schemas['CommandAnswer'], command: Command) => void;
  onShow?: (stepId: number) => void;
}

/** Changes the texts of all that is selected, with a look at every one of them on the way. */
export function EditTextsDialog({ chosen, kinds, onClose, onDone, onShow }: Props) {
  const known = useKinds();
  const fields = textFieldsOf([...kinds].flatMap((kind) => known.of(kind).fields));
  const [operation, setOperation] = useState<Operation>('replace');
  const [find, setFind] = useState('');
  const [value, setValue] = useState('');
  const [isExpression, setIsExpression] = useState(false);
  const [matchCase, setMatchCase] = useState(false);
  const [wholeWords, setWholeWords] = useState(false);
  const [inFields, setInFields] = useState<readonly string[]>(() =>
    fields.filter((field) => field.isName || field.form === 'lines').map((field) => field.name),
  );
  const replaces = operation === 'replace';
  const adds = operation === 'append' || operation === 'prepend' || operation === 'set';
  // Set alike, all headlines would say the same: one of them is chosen, by its number.
  const parts =
    operation === 'set' ? partsOf(fields) : fields.map(({ name, lowLabel }) => ({ name, lowLabel }));
  const chosenParts = inFields.filter((name) => parts.some((part) => part.name === name));
  const ready = chosenParts.length > 0 && (replaces ? find !== '' : !adds || value.trim() !== '');
  const command: Command | null = ready
    ? {
        type: 'editTexts',
        ...chosen,
        fields: [...chosenParts],
        operation,
        value,
        find: replaces ? find : null,
        isExpression,
        matchCase,
        wholeWords,
      }
    : null;
  return (
    <PreviewDialog title="Change texts" command={command} onClose={onClose} onDone={onDone} onShow={onShow}>
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
      {parts.length > 1 && (
        <div className="flex flex-wrap gap-x-4">
          <span className="text-ink-3">in</span>
          {parts.map((part) => (
            <CheckField
              key={part.name}
              label={part.lowLabel}
              checked={inFields.includes(part.name)}
              onChange={(on) =>
                setInFields(on ? [...inFields, part.name] : inFields.filter((each) => each !== part.name))
              }
            />
          ))}
        </div>
      )}
      {operation === 'set' && chosenParts.length === 0 && <p className="text-ink-2">Choose what is set.</p>}
    </PreviewDialog>
  );
}

/** The fields whose texts can be changed: one for each name. */
function textFieldsOf(fields: readonly ItemField[]): readonly ItemField[] {
  return [...new Map(fields.filter((field) => field.isText).map((field) => [field.name, field])).values()];
}

/** What can be set: a text, or one part of a value of several. */
function partsOf(fields: readonly ItemField[]): readonly { name: string; lowLabel: string }[] {
  return fields.flatMap((field) =>
    field.form === 'lines'
      ? Array.from({ length: field.limits.most ?? 3 }, (_, place) => ({
          name: `${field.name}.${place + 1}`,
          lowLabel: `${field.partName ?? field.lowLabel} ${place + 1}`,
        }))
      : [{ name: field.name, lowLabel: field.lowLabel }],
  );
}
