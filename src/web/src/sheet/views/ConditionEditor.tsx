import { Popover } from 'radix-ui';
import { useState, type FormEvent, type ReactNode } from 'react';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { goHome, hasHome } from '../../ui/home';
import { CheckField, TextField } from '../../ui/Field';
import { needsValue, testsOf, type Condition, type SheetField, type SheetTest } from './conditions';

interface Props {
  fields: readonly SheetField[];
  condition: Condition | null;
  onKeep: (condition: Condition) => void;
  children: ReactNode;
}

/** One condition of the filter: a field, a test, what it is held against. */
export function ConditionEditor({ fields, condition, onKeep, children }: Props) {
  const [open, setOpen] = useState(false);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger asChild>{children}</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={4}
          aria-label="Condition"
          onCloseAutoFocus={(event) => {
            if (!hasHome()) return;
            event.preventDefault();
            goHome();
          }}
          className="z-50 w-80 rounded-lg border border-line-strong bg-sheet p-3 shadow-lg"
        >
          <Form
            fields={fields}
            condition={condition}
            onKeep={(next) => {
              setOpen(false);
              onKeep(next);
            }}
          />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

function Form({ fields, condition, onKeep }: Omit<Props, 'children'>) {
  const [name, setName] = useState(condition?.field ?? fields[0]?.name ?? '');
  const field = fields.find((each) => each.name === name);
  const tests = field ? testsOf(field) : [];
  const [test, setTest] = useState<SheetTest>(condition?.test ?? 'contains');
  const chosenTest = tests.some((each) => each.value === test) ? test : (tests[0]?.value ?? 'is');
  const [values, setValues] = useState<readonly string[]>(condition?.values ?? []);
  const text = values.join(' | ');
  const submit = (event: FormEvent) => {
    event.preventDefault();
    event.stopPropagation();
    onKeep({ field: name, test: chosenTest, values: needsValue(chosenTest) ? [...values] : [] });
  };
  const isExpression = chosenTest === 'matches' || chosenTest === 'matchesNot';
  return (
    <form className="space-y-2" onSubmit={submit}>
      <Choice
        label="Field"
        value={name}
        options={fields.map((each) => ({ value: each.name, label: each.label }))}
        className="w-full"
        onChange={(next) => {
          setName(next);
          setValues([]);
        }}
      />
      <Choice
        label="Test"
        value={chosenTest}
        options={tests}
        className="w-full"
        onChange={(next) => setTest(next)}
      />
      {field?.type === 'choice' ? (
        <div className="flex flex-wrap gap-x-3 gap-y-1">
          {field.choices.map((choice) => (
            <CheckField
              key={choice.key}
              label={choice.name}
              checked={values.includes(choice.key)}
              onChange={(on) =>
                setValues(on ? [...values, choice.key] : values.filter((each) => each !== choice.key))
              }
            />
          ))}
        </div>
      ) : (
        needsValue(chosenTest) && (
          <TextField
            label="Value"
            hideLabel
            value={text}
            placeholder={placeholderOf(field, isExpression)}
            hint={
              !isExpression && (field?.type === 'text' || field?.type === 'texts')
                ? 'Several with | between: any of them will do.'
                : undefined
            }
            onChange={(event) =>
              setValues(
                isExpression
                  ? [event.target.value]
                  : event.target.value.split('|').map((each) => each.trimStart()),
              )
            }
          />
        )
      )}
      <div className="flex justify-end">
        <Button
          type="submit"
          tone="plum"
          disabled={needsValue(chosenTest) && values.every((value) => value.trim() === '')}
        >
          {condition ? 'Change the condition' : 'Filter'}
        </Button>
      </div>
    </form>
  );
}

function placeholderOf(field: SheetField | undefined, isExpression: boolean) {
  if (isExpression) return '^piano (hire|rental)';
  switch (field?.type) {
    case 'date':
      return '2026-11-25';
    case 'share':
      return '2.5%';
    case 'amount':
      return '1.20';
    case 'number':
      return '0';
    default:
      return '';
  }
}
