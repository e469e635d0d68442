import { TextField } from '../../ui/Field';

interface ThenProps {
  id: number;
  name: string;
  value: string;
  bold: boolean;
  problem: boolean;
  onType: (text: string) => void;
  onLeave: () => void;
  onEscape: () => void;
}

/** The budget of a campaign then, as it is typed. */
export function ThenField({ id, name, value, bold, problem, onType, onLeave, onEscape }: ThenProps) {
  return (
    <TextField
      label={`${name}, daily budget then`}
      hideLabel
      fieldId={`budget-${id}`}
      inputMode="decimal"
      value={value}
      aria-invalid={problem || undefined}
      style={{ textAlign: 'right', fontWeight: bold ? 700 : 400 }}
      onChange={(event) => onType(event.target.value)}
      onFocus={(event) => event.target.select()}
      onBlur={onLeave}
      onKeyDown={(event) => {
        if (event.key !== 'Escape') return;
        event.preventDefault();
        onEscape();
      }}
    />
  );
}
