import { Choice } from '../../ui/Choice';
import { Labelled } from './Labelled';
import { devices, sites, type Question } from './question';

type Circumstance = Pick<Question, 'device' | 'site'>;

/** On which device, and on which kind of site. */
export function Circumstances({
  value,
  onChange,
}: {
  value: Circumstance;
  onChange: (change: Partial<Circumstance>) => void;
}) {
  return (
    <div className="grid grid-cols-2 gap-2">
      <Labelled name="Device">
        <Choice
          label="Device"
          className="w-full"
          value={value.device}
          options={devices}
          onChange={(device) => onChange({ device })}
        />
      </Labelled>
      <Labelled name="Where">
        <Choice
          label="Where"
          className="w-full"
          value={value.site}
          options={sites}
          onChange={(site) => onChange({ site })}
        />
      </Labelled>
    </div>
  );
}
