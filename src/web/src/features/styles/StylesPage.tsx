import { useState, type ReactNode } from 'react';
import { toast } from 'sonner';
import type { MatchType } from '../../api/client';
import { useMatches } from '../../sheet/editing/WordsDialog';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Dialog } from '../../ui/Dialog';
import { CheckField, TextArea, TextField } from '../../ui/Field';
import { ChangeFlag, Keys, MatchChip, WeightMark } from '../../ui/Marks';
import { Menu } from '../../ui/Menu';
import { Empty, PageHead, Panel } from '../../ui/Panel';
import { Progress } from '../../ui/Progress';
import { Segments } from '../../ui/Segments';
import { Tip } from '../../ui/Tip';

const colours = [
  'paper',
  'sheet',
  'sunk',
  'line',
  'line-strong',
  'ink',
  'ink-2',
  'ink-3',
  'plum',
  'plum-wash',
  'ember',
  'moss',
  'ochre',
  'brick',
  'tide',
];

/** All primitives in all their states: the style guide. */
export function StylesPage() {
  const matches = useMatches();
  const [open, setOpen] = useState(false);
  const [match, setMatch] = useState<MatchType>('phrase');
  const [view, setView] = useState<'days' | 'weeks'>('days');
  const [checked, setChecked] = useState(true);
  return (
    <div className="h-full overflow-auto">
      <PageHead title="Style guide" note="every primitive in every state" />
      <div className="grid grid-cols-1 gap-3 p-4 min-[900px]:grid-cols-3">
        <Part title="Buttons">
          <Button>Plain</Button>
          <Button tone="plum">Plum</Button>
          <Button tone="ember">Ember</Button>
          <Button tone="quiet">Quiet</Button>
          <Button tone="brick">Brick</Button>
          <Button pressed>Pressed</Button>
          <Button disabled>Not now</Button>
        </Part>
        <Part title="Fields">
          <TextField label="Name" defaultValue="Tuning · York" />
          <TextField label="Max CPC" before="£" defaultValue="1.20" hint="Empty: the ad group’s" />
          <TextField
            label="Daily budget"
            before="£"
            defaultValue="0"
            problem="The amount must be above zero."
          />
          <TextField label="Not now" disabled defaultValue="read only" />
          <TextArea
            label="One on each line"
            rows={2}
            defaultValue={'[piano tuning york]\n"piano tuner york"'}
          />
          <CheckField label="Partner sites" checked={checked} onChange={setChecked} />
        </Part>
        <Part title="Choice, menu, tabs, dialog, tip, toast">
          <Choice label="Match type" value={match} options={matches} onChange={setMatch} />
          <Menu
            align="start"
            trigger={<Button>Menu</Button>}
            entries={[
              { label: 'First', onSelect: () => toast('First') },
              { label: 'Not now', disabled: true, onSelect: () => undefined },
            ]}
          />
          <Segments
            label="By"
            value={view}
            segments={[
              { value: 'days', label: 'Days' },
              { value: 'weeks', label: 'Weeks' },
            ]}
            onChange={setView}
          />
          <Button onClick={() => setOpen(true)}>Dialog</Button>
          <Tip text="Cost ÷ conversions.">
            <Button>Tip</Button>
          </Tip>
          <Button
            onClick={() =>
              toast('Set max CPC to £1.20 on 3 keywords', {
                action: { label: 'Undo', onClick: () => undefined },
              })
            }
          >
            Toast
          </Button>
          <Dialog
            open={open}
            onClose={() => setOpen(false)}
            title="Set max CPC to £1.20"
            description="3 items would change."
            footer={<Button onClick={() => setOpen(false)}>Leave as it is</Button>}
          >
            Before and after stand here.
          </Dialog>
        </Part>
        <Part title="Match types">
          {matches.map(({ value: each }) => (
            <MatchChip key={each} match={each} />
          ))}
          <MatchChip match="phrase" negative />
        </Part>
        <Part title="Change flags and weights">
          {(['new', 'edited', 'removed'] as const).map((each) => (
            <span key={each}>
              <ChangeFlag change={each} /> {each}
            </span>
          ))}
          <WeightMark weight="blocker">blocker</WeightMark>
          <WeightMark weight="caution">caution</WeightMark>
          <WeightMark weight="hint">hint</WeightMark>
          <Keys>Ctrl K</Keys>
        </Part>
        <Part title="Progress">
          <div className="w-full space-y-3">
            <Progress label="With a total" done={131} total={240} />
            <Progress label="Without a total" done={131} total={null} />
          </div>
        </Part>
        <Part title="Colours">
          {colours.map((colour) => (
            <span key={colour} className="flex items-center gap-1.5 text-[12px]">
              <span
                className="inline-block size-5 rounded-sm border border-line"
                style={{ background: `var(--color-${colour})` }}
              />
              {colour}
            </span>
          ))}
        </Part>
        <Part title="Headings and figures">
          <h1 className="w-full text-[20px]">Heading one</h1>
          <h2 className="w-full text-[15px]">Heading two</h2>
          <span>£1,420.72</span>
          <span>—</span>
          <span>0</span>
          <span>−18.5%</span>
        </Part>
        <Part title="Nothing here">
          <Empty title="Nothing to publish">The working copy and the live copy are the same.</Empty>
        </Part>
      </div>
    </div>
  );
}

function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <Panel title={title}>
      <div className="flex flex-wrap items-center gap-2">{children}</div>
    </Panel>
  );
}
