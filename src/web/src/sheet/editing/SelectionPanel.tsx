import type { ReactNode } from 'react';
import type { Command, ItemKind, SheetRow } from '../../api/client';
import { useKinds, type ItemField } from '../../api/kinds';
import { moment, plural } from '../../ui/format';
import { Button } from '../../ui/Button';
import { WeightMark } from '../../ui/Marks';
import { Panel } from '../../ui/Panel';
import { chosenOf, sizeOf, type Selection } from '../selection';
import { useRowCommand, type OnConflict } from '../useRowCommand';
import { AdPreview } from './AdPreview';
import { AmountPanel } from './AmountPanel';
import { holdersOf, kindsOf, needsForm, type BulkEdit } from './bulk';
import type { Input } from './FieldEditor';
import { FieldsPanel } from './FieldsPanel';

interface Props {
  selection: Selection;
  onPreview: (command: Command) => void;
  onOpenItem: (row: SheetRow) => void;
  onBulk: (what: BulkEdit) => void;
  onConflict: OnConflict;
}

/** How a kind is shown in the panel, where its fields alone do not say it. */
const pictures: Partial<Record<ItemKind, (row: SheetRow) => ReactNode>> = {
  textAd: (row) => <AdPreview kind={row.kind} values={row.values as Record<string, Input>} />,
  responsiveAd: (row) => <AdPreview kind={row.kind} values={row.values as Record<string, Input>} />,
  callAd: (row) => <AdPreview kind={row.kind} values={row.values as Record<string, Input>} />,
};

/** Fields with a place of their own in the panel, by their name. */
const placed: ReadonlySet<string> = new Set(['match', 'state', 'labels']);

/** What is selected is understood and changed here. */
export function SelectionPanel({ selection, onPreview, onOpenItem, onBulk, onConflict }: Props) {
  const run = useRowCommand(onConflict);
  const kinds = useKinds();
  const rows = selection.all ? [] : [...selection.rows.values()];
  const size = sizeOf(selection);
  const first = rows[0];
  if (size === 0)
    return (
      <div className="text-ink-2">
        <h2 className="text-[15px]">Nothing selected</h2>
        <p className="mt-1">
          Click a row, or use the arrows. Space marks rows one by one, Shift selects several, Ctrl A all that
          are shown. What can be done with them is offered here.
        </p>
      </div>
    );
  const one = size === 1 && !selection.all ? first : undefined;
  // One item is changed at once; several are shown first.
  const change = (command: Command) => (one ? run.change(one, command) : onPreview(command));
  const held = [...kindsOf(selection, kinds)].map((kind) => kinds.of(kind));
  const kind = held.length === 1 ? held[0] : undefined;
  const title = one ? one.name : kind ? kinds.count(size, kind.kind) : plural(size, 'item');
  const inside = one
    ? [one.list ?? one.campaign, one.adGroup].filter((name) => name && name !== one.name).join(' / ')
    : '';
  const needs = one?.needs ?? [];
  const having = (name: string) => rows.filter((row) => kinds.field(row.kind, name));
  const chosenWith = (name: string) => chosenOf(selection, (row) => !!kinds.field(row.kind, name));
  const fieldOf = (name: string) =>
    held.flatMap((each) => each.fields.find((field) => field.name === name) ?? [])[0];
  const match = fieldOf('match');
  const state = fieldOf('state');
  const matched = having('match');
  const stated = having('state');
  const states = (key: string) =>
    state !== undefined && (selection.all !== null || stated.some((row) => row.values.state !== key));
  const holders = held.some((each) => each.holds === 'campaign' || each.holds === 'adGroup');
  const inHolders = () => holdersOf(selection, kinds);
  const comesAndGoes = held.every((each) => each.comesAndGoes);
  const picture = one && pictures[one.kind]?.(one);
  const gone = selection.all ? selection.all.where.removed : rows.every((row) => row.change === 'removed');
  const settings = one
    ? kinds
        .of(one.kind)
        .fields.filter(
          (field) =>
            !field.isName && !placed.has(field.name) && field.form !== 'amount' && field.form !== 'lines',
        )
    : [];
  const head = (
    <div>
      <h2 className="text-[15px] break-words">{title}</h2>
      {selection.marked && (
        <div className="text-ink-3">{selection.all ? 'all that match' : 'marked'}; Esc drops the marks</div>
      )}
      {inside && <div className="text-ink-3">in {inside}</div>}
    </div>
  );
  if (gone)
    return (
      <>
        {head}
        <Removal row={one} />
        {picture}
        <Button onClick={() => onPreview({ type: 'bringBack', ...chosenOf(selection) })}>Bring back…</Button>
      </>
    );
  return (
    <>
      {head}
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
      {picture}
      {one && one.change !== 'removed' && needsForm(kinds, one.kind) && (
        <Button onClick={() => onOpenItem(one)}>Change the {kinds.noun(one.kind)}…</Button>
      )}
      {amountsOf(held.flatMap((each) => each.fields)).map((field) => {
        const priced = having(field.name);
        return (
          <AmountPanel
            key={`${field.name}${size}${first?.id ?? ''}`}
            field={field}
            rows={priced}
            chosen={chosenWith(field.name)}
            single={one}
            inherits={
              selection.all
                ? field.inheritedFrom !== null
                : priced.some(
                    (row) =>
                      kinds.field(row.kind, field.name)?.inheritedFrom &&
                      row.values[field.name] !== undefined,
                  )
            }
            onPreview={onPreview}
            onConflict={onConflict}
          />
        );
      })}
      {match && (
        <Panel title="Match">
          <div className="flex flex-wrap items-center gap-[7px]">
            {match.choices.map((choice) => {
              const all = matched.length > 0 && matched.every((row) => row.values.match === choice.key);
              return (
                <button
                  key={choice.key}
                  type="button"
                  aria-pressed={all}
                  aria-label={`${choice.name}: match type of ${title}`}
                  onClick={() =>
                    change({ type: 'setFields', ...chosenWith('match'), values: { match: choice.key } })
                  }
                  className={`match match-${choice.key} ${all ? 'ring-2 ring-plum ring-offset-1' : ''}`}
                >
                  {choice.name}
                </button>
              );
            })}
          </div>
          {held.some((each) => each.kind === 'keyword') && (
            <Button tone="quiet" className="mt-1.5 -ml-2" onClick={() => onBulk('matchTypes')}>
              In other match types too…
            </Button>
          )}
        </Panel>
      )}
      {one && settings.length > 0 && (
        <FieldsPanel key={`${one.kind}${one.id}`} row={one} fields={settings} onConflict={onConflict} />
      )}
      <Panel title="Change many at once">
        <div className="flex flex-wrap gap-1.5">
          <Button onClick={() => onBulk('texts')}>Texts…</Button>
          {comesAndGoes && <Button onClick={() => onBulk('copy')}>Copy with changes…</Button>}
          <Button onClick={() => onBulk('labels')}>Labels…</Button>
          {holders && (
            <>
              <Button onClick={() => onBulk('negatives')}>Negatives…</Button>
              <Button onClick={() => onPreview({ type: 'crossNegatives', ...inHolders(), match: 'exact' })}>
                Cross-negatives…
              </Button>
              <Button onClick={() => onPreview({ type: 'splitByMatchType', ...inHolders() })}>
                Split by match type…
              </Button>
            </>
          )}
        </div>
      </Panel>
      <div className="flex flex-wrap gap-1.5">
        {(
          [
            ['paused', 'Pause'],
            ['running', 'Run'],
          ] as const
        ).map(
          ([key, label]) =>
            states(key) && (
              <Button
                key={key}
                aria-label={`${label} ${title}`}
                onClick={() => change({ type: 'setFields', ...chosenWith('state'), values: { state: key } })}
              >
                {label}
              </Button>
            ),
        )}
        {comesAndGoes && (
          <Button
            tone="brick"
            aria-label={`Remove ${title}…`}
            onClick={() => onPreview({ type: 'remove', ...chosenOf(selection) })}
          >
            Remove…
          </Button>
        )}
      </div>
    </>
  );
}

/** Where a removed item went. */
function Removal({ row }: { row: SheetRow | undefined }) {
  const step = row?.removal;
  if (!row) return <p className="text-ink-2">These are removed. What they brought is kept.</p>;
  return (
    <Panel title="Removed">
      {step ? (
        <p>
          {step.person === '' ? 'Somebody' : step.person} on {moment(step.madeAt)}: “{step.label}”
        </p>
      ) : (
        <p>On the network itself.</p>
      )}
      <p className="mt-1 text-ink-2">Its name, its place and what it brought are kept.</p>
    </Panel>
  );
}

function amountsOf(fields: readonly ItemField[]): readonly ItemField[] {
  const byName = new Map<string, ItemField>();
  for (const field of fields) {
    // Where one kind inherits and another gives, the one that inherits says more.
    if (field.form === 'amount' && (!byName.has(field.name) || field.inheritedFrom))
      byName.set(field.name, field);
  }
  return [...byName.values()];
}
