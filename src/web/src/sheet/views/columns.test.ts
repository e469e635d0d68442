import { describe, expect, it } from 'vitest';
import { account, keyword, kinds } from '../../testing/Within';
import { columnsOf, usualColumns } from './columns';

const titles = (view: Parameters<typeof columnsOf>[0]) =>
  columnsOf(view, kinds).map((column) => column.title);
const column = (key: string) => {
  const found = columnsOf('keyword', kinds).find((each) => each.key === key);
  if (!found) throw new Error(`There is no column ${key}.`);
  return found;
};

describe('columns of the sheet', () => {
  it('leave out what a view can never fill', () => {
    expect(titles('keyword')).not.toContain('Daily budget');
    expect(titles('campaign')).not.toContain('Match');
    expect(titles('negativeKeyword')).not.toContain('Max CPC');
  });

  it('have every field of the kind: what the server describes needs nothing here', () => {
    for (const kind of kinds.inOutline) {
      const keys = columnsOf(kind.kind, kinds).map((each) => each.key);
      for (const field of kind.fields)
        expect(field.isName || keys.includes(field.form === 'lines' ? `${field.name}.1` : field.name)).toBe(
          true,
        );
    }
  });

  it('say where an item is in a flat list, and not in the outline, which shows it', () => {
    expect(titles('keyword')).toContain('Campaign / ad group');
    expect(titles('outline')).not.toContain('Campaign / ad group');
  });

  it('have one for each headline, description and part of the path of an ad', () => {
    const shown = titles('textAd');
    expect(shown).toContain('Headline 2');
    expect(shown).toContain('Description 1');
    expect(shown).toContain('Path 2');
    expect(usualColumns('textAd', kinds)).toContain('headlines.1');
  });

  it('begin with the item itself', () => {
    expect(titles('outline')[0]).toBe('Item');
  });

  it('show in the outline what several kinds have or costs money, unless a person chooses otherwise', () => {
    expect(usualColumns('outline', kinds)).toContain('dailyBudget');
    expect(usualColumns('outline', kinds)).toContain('match');
    expect(usualColumns('outline', kinds)).not.toContain('devicePreference');
    expect(usualColumns('textAd', kinds)).toContain('devicePreference');
  });

  it('go to a spreadsheet as they are typed, with the decimal mark of the account', () => {
    const row = keyword(1, { maxCpc: 1.25, match: 'allWords', labels: ['spring', 'two words'] });
    expect(column('maxCpc').text(row, { ...account, decimalMark: ',' })).toBe('1,25');
    expect(column('match').text(row, account)).toBe('all words');
    expect(column('labels').text(row, account)).toBe('spring; two words');
  });
});
