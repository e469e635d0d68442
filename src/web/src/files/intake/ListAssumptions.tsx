import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { useMatches } from '../../sheet/editing/WordsDialog';
import { Choice } from '../../ui/Choice';
import { TextField } from '../../ui/Field';
import { Panel } from '../../ui/Panel';
import { columnsOf, type ColumnsProps } from './columnsOf';

const intents: { value: Schemas['RowIntent']; label: string }[] = [
  { value: 'addAndChange', label: 'add and change' },
  { value: 'add', label: 'add only' },
  { value: 'change', label: 'change only' },
  { value: 'remove', label: 'remove' },
];
const empties = [
  { value: 'keep' as const, label: 'say nothing' },
  { value: 'clear' as const, label: 'take away' },
];

/** What the list does to what is there. */
export function WhatToDo({ intake, onColumns }: ColumnsProps) {
  return (
    <Panel title="What the list does">
      <div className="space-y-2">
        <div className="flex items-center justify-between">
          {intake.columns.includes('action') ? 'Rows without an action' : 'Its rows'}
          <Choice
            label="What the rows do"
            value={intake.intent ?? 'addAndChange'}
            options={intents}
            onChange={(intent) => onColumns({ ...columnsOf(intake), intent })}
          />
        </div>
        <div className="flex items-center justify-between">
          Empty cells
          <Choice
            label="What empty cells do"
            value={intake.emptyClears ? 'clear' : 'keep'}
            options={empties}
            onChange={(empty) => onColumns({ ...columnsOf(intake), emptyClears: empty === 'clear' })}
          />
        </div>
      </div>
    </Panel>
  );
}

/** What the list does not say and has to be assumed. */
export function TakenForGranted({ intake, onColumns }: ColumnsProps) {
  const matches = useMatches();
  const [campaign, setCampaign] = useState(intake.defaultCampaign ?? '');
  const [adGroup, setAdGroup] = useState(intake.defaultAdGroup ?? '');
  const set = (next: Partial<Schemas['IntakeColumns']>) => onColumns({ ...columnsOf(intake), ...next });
  return (
    <Panel title="Where the list does not say">
      <div className="space-y-2">
        <div className="flex items-center justify-between">
          New campaigns arrive
          <Choice
            label="New campaigns arrive"
            value={intake.newPaused ? 'paused' : 'running'}
            options={[
              { value: 'running', label: 'running' },
              { value: 'paused', label: 'paused, until places are set' },
            ]}
            onChange={(state) => set({ newPaused: state === 'paused' })}
          />
        </div>
        <p className="text-ink-2">They start today, unless the list has start dates.</p>
        <div className="flex items-center justify-between">
          Bare negatives are
          <Choice
            label="Match type of bare negatives"
            value={intake.negativeMatch ?? 'phrase'}
            options={matches}
            onChange={(negativeMatch) => set({ negativeMatch })}
          />
        </div>
        <TextField
          label="Campaign of rows without one"
          value={campaign}
          onChange={(event) => setCampaign(event.target.value)}
          onBlur={() => campaign !== (intake.defaultCampaign ?? '') && set({ defaultCampaign: campaign })}
        />
        <TextField
          label="Ad group of rows without one"
          value={adGroup}
          onChange={(event) => setAdGroup(event.target.value)}
          onBlur={() => adGroup !== (intake.defaultAdGroup ?? '') && set({ defaultAdGroup: adGroup })}
        />
      </div>
    </Panel>
  );
}
