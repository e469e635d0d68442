/** Cells as tab-separated text, quoted as spreadsheets do when a cell has tabs, line breaks or quotation marks. */
export function writeTsv(rows: readonly (readonly string[])[]): string {
  return rows
    .map((cells) =>
      cells.map((cell) => (/[\t\n\r"]/.test(cell) ? `"${cell.replaceAll('"', '""')}"` : cell)).join('\t'),
    )
    .join('\n');
}

/** Reads what a spreadsheet puts on the clipboard. */
export function readTsv(text: string): string[][] {
  const rows: string[][] = [];
  let cells: string[] = [];
  let cell = '';
  let quoted = false;
  for (let at = 0; at < text.length; at++) {
    const sign = text[at];
    if (quoted) {
      if (sign === '"' && text[at + 1] === '"') {
        cell += '"';
        at++;
      } else if (sign === '"') quoted = false;
      else cell += sign;
    } else if (sign === '"' && cell === '') quoted = true;
    else if (sign === '\t') {
      cells.push(cell);
      cell = '';
    } else if (sign === '\n' || sign === '\r') {
      if (sign === '\r' && text[at + 1] === '\n') at++;
      rows.push([...cells, cell]);
      [cells, cell] = [[], ''];
    } else cell += sign;
  }
  if (cell !== '' || cells.length > 0) rows.push([...cells, cell]);
  return rows;
}

/** How a pasted block falls onto the rows that are selected: one value into many, or a block onto as many rows. */
export function fit(
  block: readonly (readonly string[])[],
  selected: number,
): { rows: number; cell: (row: number, column: number) => string | undefined; problem?: string } {
  const height = block.length;
  const width = Math.max(0, ...block.map((row) => row.length));
  const cell = (row: number, column: number) => block[row % height]?.[column];
  if (height === 0 || width === 0)
    return { rows: 0, cell, problem: 'There is nothing on the clipboard. Copy some cells first.' };
  if (height === 1) return { rows: Math.max(1, selected), cell };
  if (selected <= 1) return { rows: height, cell };
  if (selected % height === 0) return { rows: selected, cell };
  return {
    rows: 0,
    cell,
    problem: `The clipboard has ${height} rows and ${selected} are selected. Select one row to start from, or as many as there are.`,
  };
}
