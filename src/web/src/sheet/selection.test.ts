// @vitest-environment jsdom
import { describe, expect, it } from 'vitest';
import type { SheetRow } from '../api/client';
import { plainLook, queryOf } from './views/look';
import { chosenOf, isSelected, markRow, selectAll, selectRows, sizeOf, toggleRow } from './selection';

const row = (id: number) => ({ kind: 'keyword', id }) as SheetRow;
const where = queryOf({ ...plainLook, text: 'piano' }, 'keyword', {
  campaignId: null,
  adGroupId: null,
  stepId: null,
  foldedCampaigns: [3],
  foldedAdGroups: [],
});

describe('a selection', () => {
  it('of rows names them', () => {
    expect(chosenOf(selectRows([row(1), row(2)]))).toEqual({
      items: [
        { kind: 'keyword', id: 1 },
        { kind: 'keyword', id: 2 },
      ],
    });
  });

  it('of all that match goes by the filter, without the folds of the screen', () => {
    const chosen = chosenOf(selectAll(where, 200_000));
    expect(chosen.items).toEqual([]);
    expect(chosen.where).toMatchObject({ kind: 'keyword', text: 'piano', foldedCampaigns: [] });
  });

  it('of all that match can leave some out', () => {
    const selection = toggleRow(selectAll(where, 10), row(7));
    expect(sizeOf(selection)).toBe(9);
    expect([isSelected(selection, row(7)), isSelected(selection, row(8))]).toEqual([false, true]);
    expect(chosenOf(selection).items).toEqual([{ kind: 'keyword', id: 7 }]);
  });

  it('takes a row in and out again', () => {
    const once = toggleRow(selectRows([]), row(1));
    expect([sizeOf(once), sizeOf(toggleRow(once, row(1)))]).toEqual([1, 0]);
  });

  it('marks by Space: the row under the cursor first, then others in and out', () => {
    const first = markRow(selectRows([row(1)]), row(1));
    expect([sizeOf(first), first.marked]).toEqual([1, true]);
    const both = markRow(first, row(3));
    expect(sizeOf(both)).toBe(2);
    expect(sizeOf(markRow(both, row(1)))).toBe(1);
  });

  it('never holds a heading of the outline', () => {
    const heading = { ...row(-1), isHeading: true };
    expect(sizeOf(selectRows([row(1), heading]))).toBe(1);
    expect(sizeOf(markRow(selectRows([row(1)], true), heading))).toBe(1);
    expect(isSelected(selectAll(where, 10), heading)).toBe(false);
  });
});
