import { useState } from 'react';
import type { Command, ItemKind, MatchType, SheetRow } from '../../api/client';
import { useCommand } from '../../api/hooks';
import { useAccount } from '../../app/account';
import { matchNames, money, noun, plural } from '../../app/format';
import { Button } from '../../ui/Button';
import { TextField } from '../../ui/Field';
import { WeightMark } from '../../ui/Marks';
import { Panel } from '../../ui/Panel';
import { CampaignSettings } from './CampaignSettings';
import { chosenOf, sizeOf, type Chosen, type Selection } from './selection';
import type { SheetView } from './sheetQuery';

interface Props {
  selection: Selection;
  onPreview: (command: Command) => void;
  onOpenAd: (row: SheetRow) => void;
  onBulk: (what: BulkEdit) => void;
}

/** What is done to many in a dialog of its own. */
export type BulkEdit = 'texts' | 'copy' | 'labels' | 'matchTypes';

const viewKinds: Partial<Record<SheetView, ItemKind>> = {
  campaigns: 'campaign',
  adGroups: 'adGroup',
  keywords: 'keyword',
  negatives: 'negativeKeyword',
  ads: 'textAd',
  lists: 'negativeList',
};

/** The kinds that a selection may hold. */
export function kindsOf(selection: Selection): ReadonlySet<ItemKind> {
  if (!selection.all) return new Set([...selection.rows.values()].map((row) => row.kind));
  const kind = viewKinds[selection.all.where.view];
  return new Set(kind ? [kind] : ['campaign', 'adGroup', 'keyword', 'negativeKeyword', 'textAd']);
}

/** What is selected is understood and changed here. */
export function SelectionPanel({ selection, onPreview, onOpenAd, onBulk }: Props) {
  const run = useCommand();
  const rows = selection.all ? [] : [...selection.rows.values()];
  const size = sizeOf(selection);
  const first = rows[0];
  if (size === 0)
    return (
      <div className="text-ink-2">
        <h2 className="text-[15px]">Nothing selected</h2>
        <p className="mt-1">
          Click a row, or use the arrows and Space. Shift selects several, Ctrl A all that are shown. What can
          be done with them is offered here.
        </p>
      </div>
    );
  const one = size === 1 && !selection.all ? first : undefined;
  // One item is changed at once; several are shown first.
  const change = (command: Command) => (one ? run.mutate(command) : onPreview(command));
  const kinds = kindsOf(selection);
  const kind = kinds.size === 1 ? [...kinds][0] : undefined;
  const title = one ? one.name : kind ? plural(size, noun(kind)) : plural(size, 'item');
  const inside = one
    ? [one.list ?? one.campaign, one.adGroup].filter((name) => name && name !== one.name).join(' / ')
    : '';
  const is = (...wanted: ItemKind[]) => wanted.some((each) => kinds.has(each));
  const priced = rows.filter((row) => row.kind === 'keyword' || row.kind === 'adGroup');
  const campaigns = rows.filter((row) => row.kind === 'campaign');
  const matched = rows.filter((row) => row.match);
  const stated = rows.filter((row) => row.state);
  const chosen = (only?: (row: SheetRow) => boolean) => chosenOf(selection, only);
  const needs = one?.needs ?? [];
  return (
    <>
      <div>
        <h2 className="text-[15px] break-words">{title}</h2>
        {inside && <div className="text-ink-3">in {inside}</div>}
      </div>
      {needs.length > 0 && (
        <Panel title="Needs">
          <ul className="space-y-1">
            {needs.map((need) => (
              <li key={need.message}>
                <WeightMark weight={need.weight}>{need.message}</WeightMark>
                <div className="text-ink-2">{need.detail}</div>
              </li>
            ))}
          </ul>
        </Panel>
      )}
      {one?.reviewReason && (
        <Panel title="The network says">
          <p className="text-brick">{one.reviewReason}</p>
        </Panel>
      )}
      {one?.kind === 'textAd' && (
        <Panel title="Ad">
          <div className="font-semibold text-plum">{one.headlines?.join(' – ')}</div>
          {one.descriptions?.map((line) => (
            <p key={line}>{line}</p>
          ))}
          <div className="mt-1 text-ink-3 break-all">{one.finalUrl}</div>
          <Button className="mt-2" onClick={() => onOpenAd(one)}>
            Change the ad…
          </Button>
        </Panel>
      )}
      {is('keyword', 'adGroup') && (
        <AmountPanel
          key={`cpc${size}${first?.id ?? ''}`}
          field="maxCpc"
          title="Max CPC"
          rows={priced}
          amounts={priced.map((row) => row.maxCpc ?? null)}
          chosen={chosen((row) => priced.includes(row))}
          onChange={change}
          inherit={
            selection.all
              ? kinds.has('keyword')
              : priced.some((row) => row.kind === 'keyword' && row.maxCpc != null)
          }
        />
      )}
      {is('campaign') && (
        <AmountPanel
          key={`budget${size}${first?.id ?? ''}`}
          field="dailyBudget"
          title="Daily budget"
          rows={campaigns}
          amounts={campaigns.map((row) => row.dailyBudget ?? null)}
          chosen={chosen((row) => row.kind === 'campaign')}
          onChange={change}
        />
      )}
      {is('keyword', 'negativeKeyword') && (
        <Panel title="Match">
          <div className="flex flex-wrap items-center gap-[7px]">
            {(Object.keys(matchNames) as MatchType[]).map((match) => {
              const all = matched.length > 0 && matched.every((row) => row.match === match);
              return (
                <button
                  key={match}
                  type="button"
                  aria-pressed={all}
                  onClick={() => change({ type: 'setMatchType', ...chosen((row) => !!row.match), match })}
                  className={`match match-${match} ${all ? 'ring-2 ring-plum ring-offset-1' : ''}`}
                >
                  {matchNames[match]}
                </button>
              );
            })}
          </div>
          {is('keyword') && (
            <Button tone="quiet" className="mt-1.5 -ml-2" onClick={() => onBulk('matchTypes')}>
              In other match types too…
            </Button>
          )}
        </Panel>
      )}
      {one?.kind === 'campaign' && <CampaignSettings key={one.id} row={one} />}
      <Panel title="Change many at once">
        <div className="flex flex-wrap gap-1.5">
          <Button onClick={() => onBulk('texts')}>Texts…</Button>
          <Button onClick={() => onBulk('copy')}>Copy with changes…</Button>
          <Button onClick={() => onBulk('labels')}>Labels…</Button>
          {is('adGroup', 'campaign') && (
            <>
              <Button
                onClick={() =>
                  onPreview({
                    type: 'crossNegatives',
                    ...chosen((row) => ['adGroup', 'campaign'].includes(row.kind)),
                    match: 'exact',
                  })
                }
              >
                Cross-negatives…
              </Button>
              <Button
                onClick={() =>
                  onPreview({
                    type: 'splitByMatchType',
                    ...chosen((row) => ['adGroup', 'campaign'].includes(row.kind)),
                  })
                }
              >
                Split by match type…
              </Button>
            </>
          )}
        </div>
      </Panel>
      <div className="flex flex-wrap gap-1.5">
        {(selection.all
          ? is('campaign', 'adGroup', 'keyword', 'textAd')
          : stated.some((row) => row.state === 'running')) && (
          <Button
            onClick={() => change({ type: 'setState', ...chosen((row) => !!row.state), state: 'paused' })}
          >
            Pause
          </Button>
        )}
        {(selection.all
          ? is('campaign', 'adGroup', 'keyword', 'textAd')
          : stated.some((row) => row.state === 'paused')) && (
          <Button
            onClick={() => change({ type: 'setState', ...chosen((row) => !!row.state), state: 'running' })}
          >
            Run
          </Button>
        )}
        <Button tone="brick" onClick={() => onPreview({ type: 'remove', ...chosen() })}>
          Remove…
        </Button>
      </div>
    </>
  );
}

interface AmountProps {
  field: 'maxCpc' | 'dailyBudget';
  title: string;
  rows: SheetRow[];
  amounts: (number | null)[];
  chosen: Chosen;
  inherit?: boolean;
  onChange: (command: Command) => void;
}

function AmountPanel({ field, title, rows, amounts, chosen, inherit, onChange }: AmountProps) {
  const account = useAccount();
  const [text, setText] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const [bounds, setBounds] = useState({ roundTo: '', atLeast: '', atMost: '' });
  const known = amounts.filter((amount): amount is number => amount !== null);
  const least = Math.min(...known);
  const most = Math.max(...known);
  const now =
    rows.length === 0
      ? null
      : known.length === 0
        ? rows[0]?.inheritedMaxCpc != null
          ? 'the ad group’s'
          : 'none'
        : least === most
          ? money(least, account) + (known.length < amounts.length ? ' or none' : '')
          : `${money(least, account)} to ${money(most, account)}`;
  const bounded = Object.fromEntries(
    Object.entries(bounds)
      .filter(([, value]) => value.trim() !== '')
      .map(([name, value]) => [name, Number(value.replace(',', '.'))]),
  );
  const percent = (value: number) =>
    onChange({ type: 'changeAmount', ...chosen, field, operation: 'addPercent', value, ...bounded });
  const apply = () => {
    const match = /^([+−-]?)\s*(\d+(?:[.,]\d+)?)\s*(%?)$/.exec(text.trim());
    if (!match) {
      setProblem('Write 1.20 to set, +0.10 to raise, −10% to lower.');
      return;
    }
    setProblem(null);
    const amount =
      Number((match[2] ?? '').replace(',', '.')) * (match[1] === '' || match[1] === '+' ? 1 : -1);
    const operation = match[3] ? 'addPercent' : match[1] ? 'addAmount' : 'set';
    if (Object.values(bounded).some(Number.isNaN)) {
      setProblem('Write step, floor and ceiling like 0.05.');
      return;
    }
    onChange({ type: 'changeAmount', ...chosen, field, operation, value: amount, ...bounded });
    setText('');
  };
  return (
    <Panel title={title}>
      {now !== null && (
        <div className="mb-1.5">
          Now <b className="font-semibold">{now}</b>
        </div>
      )}
      <form
        className="flex items-start gap-1.5"
        onSubmit={(event) => {
          event.preventDefault();
          apply();
        }}
      >
        <TextField
          label={`New ${title.toLowerCase()}`}
          hideLabel
          className="flex-1"
          placeholder="1.20, +0.10 or −10%"
          value={text}
          problem={problem}
          onChange={(event) => {
            setText(event.target.value);
            setProblem(null);
          }}
        />
        <Button type="submit" tone="plum" disabled={!text.trim()}>
          Set
        </Button>
      </form>
      <div className="mt-1.5 flex flex-wrap gap-1.5">
        <Button disabled={rows.length > 0 && known.length === 0} onClick={() => percent(10)}>
          +10%
        </Button>
        <Button disabled={rows.length > 0 && known.length === 0} onClick={() => percent(-10)}>
          −10%
        </Button>
        {inherit && (
          <Button
            onClick={() =>
              onChange({ type: 'changeAmount', ...chosen, field, operation: 'inherit', value: 0 })
            }
          >
            Inherit
          </Button>
        )}
      </div>
      <details className="mt-1.5">
        <summary className="cursor-default text-ink-2">Rounded, at least, at most</summary>
        <div className="mt-1 grid grid-cols-3 gap-1.5">
          {(
            [
              ['roundTo', 'Step', '0.05'],
              ['atLeast', 'At least', '0.20'],
              ['atMost', 'At most', '3.00'],
            ] as const
          ).map(([name, label, example]) => (
            <TextField
              key={name}
              label={label}
              inputMode="decimal"
              placeholder={example}
              value={bounds[name]}
              onChange={(event) => setBounds({ ...bounds, [name]: event.target.value })}
            />
          ))}
        </div>
      </details>
    </Panel>
  );
}
