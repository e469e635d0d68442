import type { Schemas } from '../../api/client';
import { Button } from '../../ui/Button';
import { plural, whole } from '../../ui/format';
import { goHome } from '../../ui/home';
import { WeightMark } from '../../ui/Marks';
import { Panel } from '../../ui/Panel';
import { rowsOf, type IntakeShown } from './intakeShown';
import { useColumnChoices } from './useColumnChoices';

interface Props {
  intake: Schemas['IntakeView'];
  onShown: (shown: IntakeShown) => void;
}

/** Rows that say different things of the same. */
export function Contradictions({ intake }: { intake: Schemas['IntakeView'] }) {
  return (
    <Panel title={<WeightMark weight="caution">Rows that contradict each other</WeightMark>}>
      <ul className="space-y-1">
        {intake.contradictions.slice(0, 12).map((each) => (
          <li key={`${each.otherRow}${each.field}`}>
            <b className="font-semibold">{each.name}</b>: {each.field} {each.first} in row {each.firstRow},{' '}
            {each.other} in row {each.otherRow}. Row {each.firstRow} holds.
          </li>
        ))}
        {intake.contradictions.length > 12 && (
          <li className="text-ink-3">and {intake.contradictions.length - 12} more</li>
        )}
      </ul>
    </Panel>
  );
}

/** The first rows that are left out, with their reasons; the list itself is where they are mended. */
export function LeftOut({ intake, onShown }: Props) {
  const columns = useColumnChoices().data ?? [];
  const left = rowsOf(intake, 'leftOut');
  if (left === 0) return null;
  const first = intake.refused.slice(0, 6);
  return (
    <Panel title="Left out">
      <ul className="space-y-1">
        {first.map((row) => (
          <li key={row.rowNumber}>
            Row {row.rowNumber} <b className="font-semibold">{named(intake, row, columns)}</b>: {row.reason}
          </li>
        ))}
        {left > first.length && <li className="text-ink-3">and {whole(left - first.length)} more</li>}
      </ul>
      <Button
        className="mt-1.5"
        onClick={() => {
          onShown('leftOut');
          window.requestAnimationFrame(goHome);
        }}
      >
        Mend {plural(left, 'row')} in the list
      </Button>
    </Panel>
  );
}

/** The words of a row by which a person finds it: what it is, else where it stands. */
function named(
  intake: Schemas['IntakeView'],
  row: Schemas['IntakeListRow'],
  columns: readonly Schemas['ColumnChoice'][],
) {
  const filled = (is: (column: Schemas['ColumnChoice']) => boolean) =>
    columns
      .filter(is)
      .map((column) => row.cells[intake.columns.indexOf(column.name)] ?? '')
      .filter((cell) => cell !== '');
  const names = filled((column) => column.isName);
  const places = filled((column) => column.isPlace && column.form === null);
  const text = names[0] ?? places.at(-1) ?? '';
  return text.length > 50 ? `${text.slice(0, 50)}…` : text;
}
