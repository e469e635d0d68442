import { describe, expect, it } from 'vitest';
import { fit, readTsv, writeTsv } from './tsv';

describe('cells on the clipboard', () => {
  it('go out with tabs between and lines below each other', () => {
    expect(
      writeTsv([
        ['a', 'b'],
        ['c', ''],
      ]),
    ).toBe('a\tb\nc\t');
  });

  it('are quoted when they hold a tab, a line break or a quotation mark', () => {
    const cells = [['say "hi"', 'two\nlines', 'tab\there']];
    expect(readTsv(writeTsv(cells))).toEqual(cells);
  });

  it('come in with the line break that a spreadsheet puts at the end', () => {
    expect(readTsv('a\tb\r\nc\td\r\n')).toEqual([
      ['a', 'b'],
      ['c', 'd'],
    ]);
  });

  it('keep a quotation mark in the middle of a cell', () => {
    expect(readTsv('6" pipe\tx')).toEqual([['6" pipe', 'x']]);
  });

  it('may be empty', () => {
    expect(readTsv('\ta\n\t')).toEqual([
      ['', 'a'],
      ['', ''],
    ]);
  });
});

describe('a pasted block', () => {
  it('of one row goes into every selected row', () => {
    const fitted = fit([['1.20']], 5);
    expect([fitted.rows, fitted.cell(4, 0)]).toEqual([5, '1.20']);
  });

  it('goes down from a single selected row', () => {
    expect(fit([['a'], ['b'], ['c']], 1).rows).toBe(3);
  });

  it('is repeated over a selection that is a multiple of it', () => {
    const fitted = fit([['a'], ['b']], 4);
    expect([fitted.rows, fitted.cell(3, 0)]).toEqual([4, 'b']);
  });

  it('that does not fit the selection is refused, with both numbers', () => {
    expect(fit([['a'], ['b'], ['c']], 2).problem).toContain('3 rows and 2 are selected');
  });

  it('that is empty says so', () => {
    expect(fit([], 2).problem).toContain('nothing on the clipboard');
  });
});
