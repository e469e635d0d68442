import { describe, expect, it } from 'vitest';
import { columnsOf } from './columns';

const titles = (view: Parameters<typeof columnsOf>[0]) => columnsOf(view).map((column) => column.title);

describe('columns of the sheet', () => {
  it('leave out what a view can never fill', () => {
    expect(titles('keywords')).not.toContain('Daily budget');
    expect(titles('campaigns')).not.toContain('Match');
    expect(titles('negatives')).not.toContain('Max CPC');
  });

  it('say where an item is in a flat list, and not in the outline, which shows it', () => {
    expect(titles('keywords')).toContain('Campaign / ad group');
    expect(titles('outline')).not.toContain('Campaign / ad group');
  });

  it('begin with the item itself', () => {
    expect(titles('outline')[0]).toBe('Item');
  });
});
