type KeyList = readonly (readonly [keys: string, what: string])[];

export const everywhere: KeyList = [
  ['Ctrl K', 'Find anything, run any command'],
  ['Alt A', 'Go to another account'],
  ['Alt I', 'Bring in a list'],
  ['Ctrl Z', 'Undo'],
  ['Ctrl Shift Z', 'Redo'],
  ['F6', 'To the side panel, and back'],
  ['Esc', 'Close what is open; from the side panel back to the page'],
  ['?', 'These keys'],
];

const sheet: KeyList = [
  ['↑ ↓ ← →', 'Move in the sheet'],
  ['Page Up, Page Down', 'A screen up or down'],
  ['Home, End', 'First or last column'],
  ['Ctrl Home, Ctrl End', 'First or last row'],
  ['Ctrl ↑ ↓', 'Previous or next campaign or ad group; in a list the first or last row'],
  ['Ctrl ← →', 'First or last column'],
  ['Enter', 'Edit the cell; keep the edit and go down; fold or unfold on a name with rows below it'],
  ['Tab, Shift Tab', 'While editing: keep the edit and go right or left'],
  ['F2', 'Edit the cell'],
  ['A digit, + or −', 'Write over an amount, or raise and lower it'],
  ['Space', 'Mark or unmark the row; arrows then leave the marks alone'],
  ['Shift ↑ ↓, Shift Page Up, Shift Page Down', 'Extend the selection'],
  ['Ctrl A', 'Select all that match, loaded or not'],
  ['Alt Shift ← →', 'Make the column narrower or wider'],
  ['Shift ← →', 'Mark several columns'],
  ['Ctrl C', 'Copy the marked cells of the selected rows'],
  ['Ctrl Shift C', 'Copy whole rows with their titles'],
  ['Ctrl V', 'Paste cells: a block, or one value into many'],
  ['Ctrl D', 'Fill the first selected value down'],
  ['Alt B', 'Amount of what is selected: set, raise or lower'],
  ['Alt T', 'Change the texts of what is selected'],
  ['Alt C', 'Copy with changes'],
  ['Alt L', 'Labels'],
  ['Delete', 'Remove what is selected'],
  ['/', 'To the filter; ↓ or Enter goes back into the sheet'],
  ['Esc', 'Leave the edit, or drop the marks'],
  ['Any letter', 'Go to the next row that begins with it'],
];

const list: KeyList = [
  ['↑ ↓, Home, End', 'Move in the list'],
  ['Space', 'Tick or untick the row'],
  ['Ctrl A', 'Tick all, or none'],
];

const byPage: Record<string, KeyList> = {
  'plan/structure': [
    ...sheet,
    ['Alt N', 'Add a campaign, an ad group, keywords and so on'],
    ['Alt O', 'Take out into a file'],
  ],
  'plan/negatives': sheet,
  'plan/intake': [
    ['Ctrl V', 'Paste cells from a spreadsheet'],
    ['Ctrl Enter', 'Bring in what is shown'],
    ['↑ ↓ ← →', 'Move in the list'],
    ['Enter or F2', 'Mend the cell'],
    ['Home, End, Page Up, Page Down', 'Move further'],
  ],
  'price/hours': [
    ['↑ ↓ ← →, Home, End', 'Move in the week'],
    ['Shift with these', 'Choose more hours'],
    ['Ctrl A', 'Choose the whole week'],
    ['Space', 'Ads show in the chosen hours, or no longer'],
    ['Enter, + or −', 'A modifier for the chosen hours; Enter sets it, Esc leaves it'],
    ['Ctrl D', 'Copy the day to the next'],
  ],
  'price/settings': [
    ['↑ ↓ ← →', 'Setting by setting, campaign by campaign'],
    ['Enter or F2', 'Change the setting'],
    ['Tab', 'To the side panel: its value, and giving it to the others'],
  ],
  'price/budgets': [
    ['↑ ↓, Home, End', 'Campaign by campaign'],
    ['Space', 'Plan its budget together with others, or leave it'],
    ['Enter', 'To its budget in the plan; there Enter goes to the next, Esc leaves it'],
    ['Tab', 'To the day, the ad groups, and what the plan would change'],
  ],
  'price/bids': [
    ['↑ ↓', 'Segment by segment'],
    ['Space', 'Take what is proposed, or put it off'],
    ['Tab', 'To the side panel: another modifier, and setting them'],
  ],
  'ship/checks': [
    ...list,
    ['Enter', 'Go to the field at fault'],
    ['Delete', 'Remove what is ticked, with a look first'],
  ],
  'ship/trace': [
    ['Enter', 'Trace what is typed'],
    ['Tab', 'To the choices, then along the steps; Enter on a name goes to the item'],
  ],
  'ship/changes': [
    ...list,
    ['Ctrl Enter', 'Publish what is ticked, or all'],
    ['Delete', 'Take back what is ticked, with a look first'],
  ],
  'ship/history': [
    ['↑ ↓, Home, End', 'Step by step'],
    ['Enter', 'Undo just this step, with a look first'],
  ],
  'learn/terms': [
    ['↑ ↓', 'Term by term; Home and End to the first and last'],
    ['Space', 'Choose a term, or not; Ctrl A chooses all of the page'],
    ['K, N, L', 'Keyword, negative or leave: on to what is proposed'],
    ['Enter', 'On to the step that is shown; there it is taken, Esc goes back'],
    ['W', 'To the words: ↑ ↓ from word to word, Enter shows its terms'],
    ['/', 'To the filter; ↓ goes back'],
    ['Page Down, Page Up', 'The next page of terms, and the one before'],
  ],
  'learn/results': [['Tab', 'To the next figure or title; Enter on a title sorts, largest first']],
};

/** The keys of a page, its own first. */
export function keysOf(pathname: string): KeyList {
  const own = Object.entries(byPage).find(([path]) => pathname.endsWith(path))?.[1] ?? [];
  const names = new Set(own.map(([keys]) => keys));
  return [...own, ...everywhere.filter(([keys]) => !names.has(keys))];
}
