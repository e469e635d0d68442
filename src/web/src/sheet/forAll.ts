import type { Command } from '../api/client';
import { chosenOf, type Selection } from './selection';

/** What was typed into one cell, for all rows that are marked: looked at before it is done. */
export function forAll(command: Command, selection: Selection): Command {
  const cell = command.type === 'setCells' ? command.cells[0] : undefined;
  if (!cell) return command;
  const chosen = chosenOf(selection);
  if (cell.part == null) return { type: 'setFields', ...chosen, values: { [cell.field]: cell.text } };
  return {
    type: 'editTexts',
    ...chosen,
    fields: [`${cell.field}.${cell.part}`],
    operation: 'set',
    value: cell.text,
    isExpression: false,
    matchCase: false,
    wholeWords: false,
  };
}
