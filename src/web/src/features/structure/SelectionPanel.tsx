import { useState } from 'react';
import type { Command, MatchType, SheetRow } from '../../api/client';
import { useCommand } from '../../api/hooks';
import { useAccount } from '../../app/account';
import { matchNames, money, noun, plural } from '../../app/format';
import { Button } from '../../ui/Button';
import { TextField } from '../../ui/Field';
import { WeightMark } from '../../ui/Marks';
import { Panel } from '../../ui/Panel';
import { CampaignSettings } from './CampaignSettings';
import type { Selection } from './Sheet';
import { referencesOf } from './sheetQuery';

interface Props {
  selection: Selection;
  onPreview: (command: Command) => void;
  onOpenAd: (row: SheetRow) => void;
}

/** What is selected is understood and changed here. */
export function SelectionPanel({ selection, onPreview, onOpenAd }: Props) {
  const rows = [...selection.values()];
  const items = referencesOf(rows);
  const run = useCommand();
  const first = rows[0];
  if (!first)
    return (
      <div className="text-ink-2">
        <h2 className="text-[15px]">Nothing selected</h2>
        <p className="mt-1">
          Click a row, or use the arrows and Space. Shift selects several. What can be done with them is
          offered here.
        </p>
      </div>
    );
  // One item is changed at once; several are shown first.
  const change = (command: Command) => (rows.length === 1 ? run.mutate(command) : onPreview(command));
  const kinds = new Set(rows.map((row) => row.kind));
  const title =
    rows.length === 1
      ? first.name
      : kinds.size === 1
        ? plural(rows.length, noun(first.kind))
        : plural(rows.length, 'item');
  const inside =
    rows.length === 1
      ? [first.campaign, first.adGroup].filter((name) => name && name !== first.name).join(' / ')
      : '';
  const priced = rows.filter((row) => row.kind === 'keyword' || row.kind === 'adGroup');
  const campaigns = rows.filter((row) => row.kind === 'campaign');
  const matched = rows.filter((row) => row.match);
  const stated = rows.filter((row) => row.state);
  const needs = rows.length === 1 ? first.needs : [];
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
      {first.reviewReason && rows.length === 1 && (
        <Panel title="The network says">
          <p className="text-brick">{first.reviewReason}</p>
        </Panel>
      )}
      {first.kind === 'textAd' && rows.length === 1 && (
        <Panel title="Ad">
          <div className="font-semibold text-plum">{first.headlines?.join(' – ')}</div>
          {first.descriptions?.map((line) => (
            <p key={line}>{line}</p>
          ))}
          <div className="mt-1 text-ink-3 break-all">{first.finalUrl}</div>
          <Button className="mt-2" onClick={() => onOpenAd(first)}>
            Change the ad…
          </Button>
        </Panel>
      )}
      {priced.length > 0 && (
        <AmountPanel
          key={`cpc${items.length}${first.id}`}
          field="maxCpc"
          title="Max CPC"
          rows={priced}
          amounts={priced.map((row) => row.maxCpc ?? null)}
          onChange={change}
          inherit={priced.some((row) => row.kind === 'keyword' && row.maxCpc != null)}
        />
      )}
      {campaigns.length > 0 && (
        <AmountPanel
          key={`budget${items.length}${first.id}`}
          field="dailyBudget"
          title="Daily budget"
          rows={campaigns}
          amounts={campaigns.map((row) => row.dailyBudget ?? null)}
          onChange={change}
        />
      )}
      {matched.length > 0 && (
        <Panel title="Match">
          <div className="flex flex-wrap items-center gap-[7px]">
            {(Object.keys(matchNames) as MatchType[]).map((match) => (
              <button
                key={match}
                type="button"
                aria-pressed={matched.every((row) => row.match === match)}
                onClick={() => change({ type: 'setMatchType', items: referencesOf(matched), match })}
                className={`match match-${match} ${matched.every((row) => row.match === match) ? 'ring-2 ring-plum ring-offset-1' : ''}`}
              >
                {matchNames[match]}
              </button>
            ))}
          </div>
        </Panel>
      )}
      {first.kind === 'campaign' && rows.length === 1 && <CampaignSettings key={first.id} row={first} />}
      <div className="flex flex-wrap gap-1.5">
        {stated.some((row) => row.state === 'running') && (
          <Button onClick={() => change({ type: 'setState', items: referencesOf(stated), state: 'paused' })}>
            Pause
          </Button>
        )}
        {stated.some((row) => row.state === 'paused') && (
          <Button onClick={() => change({ type: 'setState', items: referencesOf(stated), state: 'running' })}>
            Run
          </Button>
        )}
        <Button tone="brick" onClick={() => onPreview({ type: 'remove', items })}>
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
  inherit?: boolean;
  onChange: (command: Command) => void;
}

function AmountPanel({ field, title, rows, amounts, inherit, onChange }: AmountProps) {
  const account = useAccount();
  const [text, setText] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const known = amounts.filter((amount): amount is number => amount !== null);
  const least = Math.min(...known);
  const most = Math.max(...known);
  const now =
    known.length === 0
      ? rows[0]?.inheritedMaxCpc != null
        ? 'the ad group’s'
        : 'none'
      : least === most
        ? money(least, account) + (known.length < amounts.length ? ' or none' : '')
        : `${money(least, account)} to ${money(most, account)}`;
  const items = referencesOf(rows);
  const percent = (value: number) =>
    onChange({ type: 'changeAmount', items, field, operation: 'addPercent', value });
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
    onChange({ type: 'changeAmount', items, field, operation, value: amount });
    setText('');
  };
  return (
    <Panel title={title}>
      <div className="mb-1.5">
        Now <b className="font-semibold">{now}</b>
      </div>
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
        <Button disabled={known.length === 0} onClick={() => percent(10)}>
          +10%
        </Button>
        <Button disabled={known.length === 0} onClick={() => percent(-10)}>
          −10%
        </Button>
        {inherit && (
          <Button
            onClick={() => onChange({ type: 'changeAmount', items, field, operation: 'inherit', value: 0 })}
          >
            Inherit
          </Button>
        )}
      </div>
    </Panel>
  );
}
