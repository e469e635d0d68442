import { useState } from 'react';
import { useAccount } from '../../../api/account';
import { useCommand } from '../../../api/hooks';
import { Button } from '../../../ui/Button';
import { Choice } from '../../../ui/Choice';
import { TextField } from '../../../ui/Field';
import { money, shortDay } from '../../../ui/format';
import { goHome } from '../../../ui/home';
import { Empty } from '../../../ui/Panel';
import { useSegments, weekChoices, type Rule, type SegmentRow, type Segments } from '../useBids';
import { CampaignList } from './CampaignList';
import { RuleDialog } from './RuleDialog';
import { SegmentSide } from './SegmentSide';
import { keyOf, SegmentTable } from './SegmentTable';

const usualRule: Rule = { half: 2.5, nineTenths: 4, never: 6 };

/** Modifiers of devices, hours, places and audiences, on evidence. */
export function ModifiersPart({ campaignId }: { campaignId: number | null }) {
  const [weeks, setWeeks] = useState(8);
  const [rule, setRule] = useState(usualRule);
  const [rules, setRules] = useState(false);
  const segments = useSegments(campaignId, weeks, rule);
  return (
    <>
      <div className="flex flex-wrap items-center justify-end gap-2 border-b border-line-soft bg-sheet px-3 py-1">
        {campaignId !== null && (
          <>
            {segments.data && (
              <MayCost
                key={`${campaignId} ${segments.data.version}`}
                campaignId={campaignId}
                segments={segments.data}
              />
            )}
            <Button onClick={() => setRules(true)}>Rule of the trade…</Button>
          </>
        )}
        <Choice
          label="Weeks"
          value={String(weeks)}
          options={weekChoices}
          onChange={(next) => setWeeks(Number(next))}
        />
      </div>
      {campaignId === null ? (
        <CampaignList weeks={weeks} />
      ) : segments.isError ? (
        <p role="alert" className="p-4 text-brick">
          {segments.error.message}
        </p>
      ) : (
        segments.data && <OfCampaign key={campaignId} campaignId={campaignId} segments={segments.data} />
      )}
      {rules && (
        <RuleDialog
          rule={rule}
          onClose={() => setRules(false)}
          onChange={(next) => {
            setRule(next);
            setRules(false);
          }}
        />
      )}
    </>
  );
}

/** What a conversion may cost in the campaign: kept with it, and the yardstick until there is one. */
function MayCost({ campaignId, segments }: { campaignId: number; segments: Segments }) {
  const kept = segments.mayCost === null ? '' : String(segments.mayCost);
  const [text, setText] = useState(kept);
  const [problem, setProblem] = useState<string | null>(null);
  const run = useCommand({ onProblem: (told) => setProblem(told.message) });
  const keep = () => {
    if (run.isPending || text.trim() === kept) return;
    run.mutate({
      type: 'setFields',
      items: [{ kind: 'campaign', id: campaignId }],
      values: { conversionMayCost: text.trim() },
      seen: [{ kind: 'campaign', id: campaignId, version: segments.version }],
    });
  };
  return (
    <form
      className="flex items-center gap-1.5"
      onSubmit={(event) => {
        event.preventDefault();
        // Leaving the field keeps it.
        goHome();
      }}
    >
      {problem && (
        <span role="alert" className="text-brick">
          {problem}
        </span>
      )}
      <span className="text-ink-2">A conversion may cost</span>
      <TextField
        label="A conversion may cost"
        hideLabel
        className="w-[86px]"
        value={text}
        placeholder="not said"
        onChange={(event) => {
          setProblem(null);
          setText(event.target.value);
        }}
        onBlur={keep}
      />
    </form>
  );
}

function OfCampaign({ campaignId, segments }: { campaignId: number; segments: Segments }) {
  const account = useAccount();
  const [current, setCurrent] = useState('');
  // What a person chose or put off; the rest is what is proposed.
  const [decided, setDecided] = useState<ReadonlyMap<string, string | null>>(new Map());
  const run = useCommand();
  const rows = segments.segments;
  const here = rows.find((row) => keyOf(row) === current) ?? rows[0];
  if (!here || segments.first === null)
    return (
      <Empty title="Nothing was reported yet">
        When ads were seen and clicked, what each device, part of the week and kind of site brought stands
        here, with the modifiers that follow.
      </Empty>
    );
  const chosen = new Map<string, string>();
  for (const row of rows) {
    const modifier = decided.has(keyOf(row)) ? decided.get(keyOf(row)) : row.proposed;
    if (modifier) chosen.set(keyOf(row), modifier);
  }
  const decide = (row: SegmentRow, modifier: string | null) =>
    setDecided((before) => new Map(before).set(keyOf(row), modifier));
  const set = () => {
    if (run.isPending) return;
    const rowsToSet = rows.filter((row) => chosen.has(keyOf(row)));
    run.mutate(
      {
        type: 'changeModifiers',
        items: [{ kind: 'campaign', id: campaignId }],
        week: rowsToSet.flatMap((row) =>
          (row.spans ?? []).map((span) => ({
            ...span,
            shows: null,
            modifier: chosen.get(keyOf(row)) ?? null,
          })),
        ),
        values: Object.fromEntries(
          rowsToSet.flatMap((row) => (row.field ? [[row.field, chosen.get(keyOf(row)) ?? '']] : [])),
        ),
        // What a colleague set meanwhile is told, not overwritten.
        seen: [
          { kind: 'campaign', id: campaignId, version: segments.version },
          ...rowsToSet.flatMap(({ target }) =>
            target && target.id !== null && target.version !== null
              ? [{ kind: target.kind, id: target.id, version: target.version }]
              : [],
          ),
        ],
        days: [],
        targets: rowsToSet.flatMap(({ target, ...row }) =>
          target
            ? [
                {
                  kind: target.kind,
                  text: target.text,
                  modifier: chosen.get(keyOf(row)) ?? '',
                  adds: target.id === null,
                },
              ]
            : [],
        ),
      },
      {
        onSuccess: () => {
          // What was set is the modifier now; whether more follows is for later figures to say.
          setDecided(new Map(rows.map((row) => [keyOf(row), null])));
          goHome();
        },
      },
    );
  };
  return (
    <div className="grid min-h-0 flex-1 max-[1099px]:block max-[1099px]:overflow-auto min-[1100px]:grid-cols-[minmax(0,1fr)_320px]">
      <div className="flex min-h-0 flex-col bg-sheet">
        {segments.says && (
          <p className="border-b border-line-soft bg-ochre-wash px-3 py-1">
            <span className="text-ochre">◆</span> {segments.says}
          </p>
        )}
        <p className="border-b border-line-soft px-3 py-1.5 text-ink-2">
          {segments.usualCost === null ? (
            <>Nothing was sold yet. Say above what a conversion may cost, and segments are held against it.</>
          ) : (
            <>
              A conversion {segments.isTarget ? 'may cost' : 'costs'}{' '}
              <strong>{money(segments.usualCost, account)}</strong> here. Each bar is where the true cost of a
              segment lies, nine times in ten; the dashed line is the{' '}
              {segments.isTarget ? 'target' : 'campaign'}. Nothing is proposed where a bar crosses it.
            </>
          )}{' '}
          <span className="text-ink-3">
            {shortDay(segments.first)} to {segments.last && shortDay(segments.last)}
          </span>
        </p>
        <div className="min-h-0 flex-1 overflow-auto">
          <SegmentTable
            segments={segments}
            current={keyOf(here)}
            onCurrent={setCurrent}
            chosen={chosen}
            onToggle={(row) => decide(row, chosen.has(keyOf(row)) ? null : row.proposed)}
          />
        </div>
      </div>
      <SegmentSide
        campaignId={campaignId}
        segments={segments}
        row={here}
        chosen={chosen}
        onChoose={decide}
        onSet={set}
      />
    </div>
  );
}
