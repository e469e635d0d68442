import clsx from 'clsx';
import { useState } from 'react';
import type { Command, MatchType, SheetRow } from '../../api/client';
import { useCampaigns, useCommand } from '../../api/hooks';
import { useMatches } from '../../sheet/editing/WordsDialog';
import { plural } from '../../ui/format';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Dialog } from '../../ui/Dialog';
import { TextArea, TextField } from '../../ui/Field';
import { ChangeFlag } from '../../ui/Marks';
import { PageHead } from '../../ui/Panel';
import { PlacePicker } from '../../sheet/editing/PlacePicker';

interface Props {
  lists: readonly SheetRow[];
  chosen: number | null;
  onChoose: (listId: number | null) => void;
  onPreview: (command: Command) => void;
}

/** Shared lists: what is in them, and which campaigns share them. */
export function ListsPanel({ lists, chosen, onChoose, onPreview }: Props) {
  const [dialog, setDialog] = useState<'new' | 'share' | null>(null);
  const list = lists.find((each) => each.id === chosen);
  const entry = (active: boolean) =>
    clsx(
      'block w-full border-b border-line-soft px-3 py-1.5 text-left',
      active ? 'bg-plum-wash' : 'hover:bg-paper',
    );
  return (
    <aside aria-label="Shared lists" className="flex min-h-0 flex-col border-r border-line-strong bg-sheet">
      <PageHead title="Lists" level={2}>
        <Button onClick={() => setDialog('new')}>New…</Button>
      </PageHead>
      <ul className="min-h-0 flex-1 overflow-auto">
        <li>
          <button
            type="button"
            aria-current={chosen === null ? 'true' : undefined}
            className={entry(chosen === null)}
            onClick={() => onChoose(null)}
          >
            <b className="font-semibold">All negatives</b>
            <span className="block text-[12px] text-ink-3">campaigns, ad groups and lists</span>
          </button>
        </li>
        {lists.map((each) => (
          <li key={each.id}>
            <button
              type="button"
              aria-current={each.id === chosen ? 'true' : undefined}
              className={entry(each.id === chosen)}
              onClick={() => onChoose(each.id)}
            >
              <span
                className={clsx(
                  'flex items-center gap-1.5',
                  each.change === 'removed' && 'text-ink-3 line-through',
                )}
              >
                <ChangeFlag change={each.change} />
                <b className="min-w-0 truncate font-semibold">{each.name}</b>
              </span>
              <span className="block text-[12px] text-ink-3">
                shared by {plural(campaignsOf(each).length, 'campaign')}
              </span>
            </button>
          </li>
        ))}
      </ul>
      {list && (
        <div className="flex flex-wrap gap-1.5 border-t border-line p-3">
          <Button onClick={() => setDialog('share')}>Share…</Button>
          <Button
            tone="brick"
            onClick={() => onPreview({ type: 'remove', items: [{ kind: 'negativeList', id: list.id }] })}
          >
            Remove…
          </Button>
        </div>
      )}
      {dialog === 'new' && <NewListDialog onClose={() => setDialog(null)} />}
      {dialog === 'share' && list && <ShareDialog list={list} onClose={() => setDialog(null)} />}
    </aside>
  );
}

function campaignsOf(list: SheetRow): readonly number[] {
  const ids = list.values.campaignIds;
  return Array.isArray(ids) ? (ids as number[]) : [];
}

function useCampaignPlaces() {
  return (useCampaigns().data ?? []).map((each) => ({ id: each.id, name: each.name }));
}

function NewListDialog({ onClose }: { onClose: () => void }) {
  const campaigns = useCampaignPlaces();
  const matches = useMatches();
  const [name, setName] = useState('');
  const [lines, setLines] = useState('');
  const [match, setMatch] = useState<MatchType>('phrase');
  const [campaignIds, setCampaignIds] = useState<readonly number[]>([]);
  const [problem, setProblem] = useState<Record<string, string>>({});
  const run = useCommand({
    onProblem: (told) => setProblem({ [Object.keys(told.fields)[0] ?? 'name']: told.message }),
  });
  return (
    <Dialog open onClose={onClose} title="New negative list">
      <form
        className="space-y-3"
        onSubmit={(event) => {
          event.preventDefault();
          run.mutate(
            { type: 'addNegativeList', name, lines, match, campaignIds: [...campaignIds] },
            { onSuccess: onClose },
          );
        }}
      >
        <TextField
          label="Name"
          autoFocus
          value={name}
          problem={problem.name ?? problem.text}
          onChange={(event) => setName(event.target.value)}
        />
        <TextArea
          label="Negatives, one on each line"
          rows={6}
          value={lines}
          problem={problem.lines}
          onChange={(event) => setLines(event.target.value)}
        />
        <div className="flex items-center gap-2">
          Bare words are{' '}
          <Choice label="Match type of bare words" value={match} options={matches} onChange={setMatch} />
        </div>
        <PlacePicker
          label="Campaigns that share it"
          places={campaigns}
          chosen={campaignIds}
          onChoose={setCampaignIds}
        />
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Leave</Button>
          <Button type="submit" tone="ember" disabled={!name.trim() || run.isPending}>
            Add the list
          </Button>
        </div>
      </form>
    </Dialog>
  );
}

function ShareDialog({ list, onClose }: { list: SheetRow; onClose: () => void }) {
  const campaigns = useCampaignPlaces();
  const before = campaignsOf(list);
  const [chosen, setChosen] = useState<readonly number[]>(before);
  const run = useCommand();
  const items = [{ kind: list.kind, id: list.id }];
  const added = chosen.filter((id) => !before.includes(id));
  const left = before.filter((id) => !chosen.includes(id));
  const save = async () => {
    if (added.length > 0)
      await run.mutateAsync({ type: 'changeReferences', items, field: 'campaignIds', ids: added, add: true });
    if (left.length > 0)
      await run.mutateAsync({ type: 'changeReferences', items, field: 'campaignIds', ids: left, add: false });
    onClose();
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title={`Who shares “${list.name}”`}
      footer={
        <>
          <Button onClick={onClose}>Leave</Button>
          <Button
            tone="ember"
            disabled={added.length + left.length === 0 || run.isPending}
            onClick={() => void save()}
          >
            {`Share with ${plural(chosen.length, 'campaign')}`}
          </Button>
        </>
      }
    >
      <PlacePicker label="Campaigns" places={campaigns} chosen={chosen} onChoose={setChosen} />
    </Dialog>
  );
}
