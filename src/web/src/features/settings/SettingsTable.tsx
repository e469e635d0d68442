import clsx from 'clsx';
import { useRef, type KeyboardEvent } from 'react';
import { useAccount } from '../../api/account';
import type { SheetRow } from '../../api/client';
import type { ItemField } from '../../api/kinds';
import { shown, typed } from '../../items/values';
import { isHome } from '../../ui/home';
import { placesRow, placeWords } from './placeWords';

export interface Cell {
  row: string;
  campaign: number;
}

interface Props {
  campaigns: readonly SheetRow[];
  fields: readonly ItemField[];
  placesOf: (campaign: SheetRow) => readonly SheetRow[];
  onlyDifferent: boolean;
  cell: Cell;
  onCell: (cell: Cell) => void;
  onEdit: () => void;
}

/** A setting in each row, a campaign in each column; what is not as in the first is marked. */
export function SettingsTable({ campaigns, fields, placesOf, onlyDifferent, cell, onCell, onEdit }: Props) {
  const account = useAccount();
  const table = useRef<HTMLTableElement>(null);
  const textOf = (campaign: SheetRow, row: string) => {
    const field = fields.find((each) => each.name === row);
    return field ? typed(field, campaign.values[field.name], account) : placeWords(placesOf(campaign));
  };
  const differs = (row: string) => new Set(campaigns.map((campaign) => textOf(campaign, row))).size > 1;
  const rows = [
    { name: placesRow, label: 'Places', meaning: 'Where the campaign shows, and where it never does.' },
    ...fields,
  ].filter((row) => !onlyDifferent || differs(row.name));
  const keys = (event: KeyboardEvent) => {
    const at = rows.findIndex((row) => row.name === cell.row);
    const column = campaigns.findIndex((campaign) => campaign.id === cell.campaign);
    const steps: Record<string, [number, number]> = {
      ArrowDown: [1, 0],
      ArrowUp: [-1, 0],
      ArrowRight: [0, 1],
      ArrowLeft: [0, -1],
    };
    const step = steps[event.key];
    if (step) {
      const [row, campaign] = [rows[at + step[0]], campaigns[column + step[1]]];
      if (!row || !campaign) return;
      onCell({ row: row.name, campaign: campaign.id });
      table.current?.querySelector<HTMLElement>(`[data-cell="${row.name} ${campaign.id}"]`)?.focus();
    } else if (event.key === 'Enter' || event.key === 'F2') onEdit();
    else return;
    event.preventDefault();
  };
  if (rows.length === 0)
    return <p className="p-4 text-ink-2">These campaigns are set alike, in everything but their names.</p>;
  return (
    <table ref={table} role="grid" aria-label="Settings of campaigns" className="w-full border-collapse">
      <thead className="sticky top-0 z-10 bg-sheet">
        <tr className="h-[29px] border-b border-line-strong">
          <th scope="col" className="min-w-[130px] px-3 text-left text-[12px] font-semibold text-ink-3">
            Setting
          </th>
          {campaigns.map((campaign) => (
            <th
              key={campaign.id}
              scope="col"
              title={campaign.name}
              className="max-w-[190px] min-w-[150px] truncate px-2 text-left"
            >
              {campaign.name}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <tr key={row.name} className="h-[27px] border-b border-line-soft">
            <th scope="row" title={row.meaning} className="px-3 text-left font-normal whitespace-nowrap">
              {differs(row.name) && (
                <span className="mr-1 text-ochre" title="Not alike">
                  ≠<span className="sr-only"> not alike: </span>
                </span>
              )}
              {row.label}
            </th>
            {campaigns.map((campaign) => {
              const isCurrent = cell.row === row.name && cell.campaign === campaign.id;
              const field = fields.find((each) => each.name === row.name);
              const text = textOf(campaign, row.name);
              const first = campaigns[0];
              const isOther = first !== undefined && text !== textOf(first, row.name);
              return (
                <td key={campaign.id} className="p-0">
                  <button
                    type="button"
                    data-cell={`${row.name} ${campaign.id}`}
                    {...(isCurrent ? isHome : {})}
                    tabIndex={isCurrent ? 0 : -1}
                    aria-current={isCurrent}
                    title={text || undefined}
                    className={clsx(
                      'block w-full max-w-[190px] truncate px-2 py-1 text-left',
                      isCurrent && 'shadow-[inset_0_0_0_2px_var(--color-plum)]',
                      isOther && 'bg-plum-wash',
                      !text && 'text-ink-3',
                    )}
                    onClick={() => onCell({ row: row.name, campaign: campaign.id })}
                    onFocus={() => onCell({ row: row.name, campaign: campaign.id })}
                    onKeyDown={keys}
                  >
                    {field ? (
                      text === '' ? (
                        '—'
                      ) : (
                        (shown(field, campaign.values[field.name], account) ?? text)
                      )
                    ) : text === '' ? (
                      <span className="text-ochre">◆ the whole world</span>
                    ) : (
                      text
                    )}
                  </button>
                </td>
              );
            })}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
