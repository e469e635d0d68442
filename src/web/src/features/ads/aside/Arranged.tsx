import { useState } from 'react';
import type { SheetRow } from '../../../api/client';
import { AdPicture } from '../../../items/AdPicture';
import type { Input } from '../../../sheet/editing/FieldEditor';
import { useRowCommand } from '../../../sheet/useRowCommand';
import { count, percent, times } from '../../../ui/format';
import { Choice } from '../../../ui/Choice';
import { Panel } from '../../../ui/Panel';
import { Segments } from '../../../ui/Segments';
import { Tick } from '../../../ui/Tick';
import { useArranged } from '../useAds';

interface Props {
  row: SheetRow;
  typed: Record<string, Input>;
  texts: Record<string, readonly string[]>;
  wide: boolean;
  displayPath: readonly string[];
}

const filters = [
  { value: 'all', label: 'All' },
  { value: 'marked', label: 'Doubtful' },
  { value: 'apart', label: 'Struck out' },
] as const;

const orders = [
  { value: 'shown', label: 'most shown first' },
  { value: 'clicks', label: 'most clicked first' },
] as const;

/** A responsive ad as it can appear: the combinations that the network made of it, and those that it could. */
export function Arranged({ row, typed, texts, wide, displayPath }: Props) {
  const [filter, setFilter] = useState<(typeof filters)[number]['value']>('all');
  const [order, setOrder] = useState<(typeof orders)[number]['value']>('shown');
  const [chosen, setChosen] = useState(0);
  const [problem, setProblem] = useState<string | null>(null);
  const run = useRowCommand(
    (told) => setProblem(told.message),
    (told) => setProblem(told.message),
    true,
  );
  const text = (name: string) => {
    const value = typed[name] ?? row.values[name];
    return typeof value === 'string' ? value : '';
  };
  const arranged = useArranged({
    adId: row.id,
    headlines: [...(texts.headlines ?? [])],
    descriptions: [...(texts.descriptions ?? [])],
    keptApart: text('keptApart'),
    device: wide ? 'desktop' : 'phone',
    filter,
    bySuccess: order === 'clicks',
  });
  const rows = arranged.data?.rows ?? [];
  const shown = rows[Math.min(chosen, rows.length - 1)];
  const strike = (keptApart: string) => {
    // What a tick says is of the list as it stands: until it is read anew there is none to give.
    if (run.isPending || arranged.isPlaceholderData) return;
    setProblem(null);
    void run.changed(row, {
      type: 'setFields',
      items: [{ kind: row.kind, id: row.id }],
      values: { keptApart },
    });
  };
  return (
    <>
      <AdPicture
        wide={wide}
        headlines={shown?.headlines ?? []}
        descriptions={shown?.descriptions ?? []}
        displayPath={displayPath}
        landingPage={text('landingPage')}
      />
      <Panel title="Combinations">
        {arranged.data && (
          <p className="mb-1.5 text-[12.5px] text-ink-2">
            {count(arranged.data.count)} possible on a {wide ? 'wide screen' : 'phone'}
            {arranged.data.marked > 0 && ` · ${count(arranged.data.marked)} doubtful`}
            {arranged.data.apart > 0 && ` · ${count(arranged.data.apart)} struck out`}
          </p>
        )}
        <Segments
          label="Which combinations"
          value={filter}
          segments={filters}
          onChange={(next) => {
            setFilter(next);
            setChosen(0);
          }}
        />
        {rows.some((each) => each.impressions > 0) && (
          <span className="mt-1.5 block">
            <Choice
              label="Order"
              value={order}
              options={orders}
              onChange={(next) => {
                setOrder(next);
                setChosen(0);
              }}
            />
          </span>
        )}
        {problem && (
          <p role="alert" className="mt-1 text-brick">
            {problem}
          </p>
        )}
        {arranged.data && rows.length === 0 && (
          <p className="mt-1.5 text-ink-3">
            {filter === 'marked'
              ? 'None says a thing twice or is too long.'
              : filter === 'apart'
                ? 'None is struck out.'
                : 'Write headlines and descriptions first.'}
          </p>
        )}
        <ul aria-label="Combinations" className="mt-1.5 max-h-80 overflow-auto">
          {rows.map((each, at) => {
            const says = [...each.headlines, ...each.descriptions.slice(0, 1)].join(' · ');
            return (
              <li key={at} className="flex items-start gap-2 border-t border-line py-1">
                <Tick
                  label={each.isApart ? `Let “${says}” show` : `Strike out “${says}”`}
                  checked={!each.isApart}
                  onChange={() => strike(each.keptApart)}
                />
                <button
                  type="button"
                  aria-pressed={at === chosen}
                  onClick={() => setChosen(at)}
                  className={`min-w-0 flex-1 rounded-sm text-left text-[12.5px] ${at === chosen ? 'bg-plum-wash' : 'hover:bg-paper'}`}
                >
                  <span className={each.isApart ? 'text-ink-3 line-through' : ''}>
                    {each.headlines.join(' · ')}
                  </span>
                  <span className="block truncate text-ink-3">{each.descriptions.join(' ')}</span>
                  {each.problems.length > 0 && <span className="block text-ochre">◆ {each.problems[0]}</span>}
                  {each.impressions > 0 && (
                    <span className="block text-ink-2">
                      {count(each.impressions)} shown · CTR {percent(each.ctr, 1)}
                      {each.againstUsual !== null && ` · ${times(each.againstUsual)} of usual clicks`}
                    </span>
                  )}
                </button>
              </li>
            );
          })}
        </ul>
      </Panel>
    </>
  );
}
