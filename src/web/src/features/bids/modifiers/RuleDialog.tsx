import { useState, type FormEvent } from 'react';
import { Button } from '../../../ui/Button';
import { Dialog } from '../../../ui/Dialog';
import { TextField } from '../../../ui/Field';
import type { Rule } from '../useBids';

const fields = [
  { name: 'half', label: 'Cut by half from' },
  { name: 'nineTenths', label: 'Cut by 90% from' },
  { name: 'never', label: 'Stop from' },
] as const;

/** From how many times the usual cost on, spent for nothing, the rule of the trade cuts a bid. */
export function RuleDialog({
  rule,
  onChange,
  onClose,
}: {
  rule: Rule;
  onChange: (rule: Rule) => void;
  onClose: () => void;
}) {
  const [texts, setTexts] = useState({
    half: String(rule.half),
    nineTenths: String(rule.nineTenths),
    never: String(rule.never),
  });
  const wrong = fields.find(({ name }) => !(Number(texts[name]) > 0));
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (!wrong)
      onChange({
        half: Number(texts.half),
        nineTenths: Number(texts.nineTenths),
        never: Number(texts.never),
      });
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title="Rule of the trade"
      description="Money spent without a sale is evidence. From so many times the usual cost of a conversion on, for none or for each, a cut is offered beside what the figures prove."
    >
      <form onSubmit={submit} className="space-y-2.5">
        {fields.map(({ name, label }) => (
          <TextField
            key={name}
            label={label}
            className="w-40"
            inputMode="decimal"
            value={texts[name]}
            hint="times the usual cost"
            problem={wrong?.name === name ? 'Write a number, such as 2.5.' : null}
            onChange={(event) => setTexts({ ...texts, [name]: event.target.value })}
          />
        ))}
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Leave</Button>
          <Button type="submit" tone="ember">
            Use it
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
