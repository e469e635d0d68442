import { useState } from 'react';
import { useScope } from '../../app/scope';
import { fullDay } from '../../ui/format';
import { Empty, PageHead } from '../../ui/Panel';
import { ActionButtons } from './ActionButtons';
import { ActionTable } from './ActionTable';
import { FindingList } from './FindingList';
import { GoalsPanel } from './GoalsPanel';
import { StillComing } from './StillComing';
import { WorthPanel } from './WorthPanel';
import { useConversions, type ConversionAction, type Conversions } from './useConversions';
import { VisitPanel } from './VisitPanel';

/** What counts as success, what of it steers bids, and whether it still works. */
export function ConversionsPage() {
  const conversions = useConversions();
  // The actions that were there when a new one was begun: the one that comes to be is looked at next.
  const [known, setKnown] = useState<ReadonlySet<number> | null>(null);
  const [chosen, setChosen] = useState<number | null>(null);
  if (conversions.isError && !conversions.data)
    return (
      <p role="alert" className="p-4 text-brick">
        {conversions.error.message}
      </p>
    );
  if (!conversions.data) return <p className="p-4 text-ink-3">Looking at what was counted …</p>;
  const { actions, findings } = conversions.data;
  const made = known && actions.find((each) => !known.has(each.id));
  if (made) {
    setKnown(null);
    setChosen(made.id);
  }
  const amiss = findings.find((finding) => finding.actionId !== null)?.actionId;
  const current =
    actions.find((each) => each.id === chosen) ?? actions.find((each) => each.id === amiss) ?? actions[0];
  return (
    <div className="flex h-full min-h-0 flex-col">
      <PageHead
        title="Conversions"
        note={
          conversions.data.first && conversions.data.last
            ? `what counts, and whether it still works · ${fullDay(conversions.data.first)} – ${fullDay(conversions.data.last)}`
            : 'what counts, and whether it still works'
        }
      >
        <ActionButtons
          current={current?.id ?? null}
          onNew={() => setKnown(new Set(actions.map((each) => each.id)))}
        />
      </PageHead>
      {!current ? (
        <Empty title="Nothing counts yet">
          Say what is a success: a form that is sent, a sale, a booking, a call of a minute. Until then the
          network counts everybody who gets in touch in a way that it can see.
        </Empty>
      ) : (
        <OfAccount conversions={conversions.data} action={current} onChoose={setChosen} />
      )}
    </div>
  );
}

interface OfAccountProps {
  conversions: Conversions;
  action: ConversionAction;
  onChoose: (id: number) => void;
}

function OfAccount({ conversions, action, onChoose }: OfAccountProps) {
  const { campaignId } = useScope();
  return (
    <div className="grid min-h-0 flex-1 max-[1099px]:block max-[1099px]:overflow-auto min-[1100px]:grid-cols-[minmax(0,1fr)_344px]">
      <div className="min-h-0 overflow-auto bg-sheet">
        <ActionTable actions={conversions.actions} current={action.id} onCurrent={onChoose} />
        <div className="grid gap-3 p-3">
          <VisitPanel key={action.id} action={action} />
          <FindingList
            findings={conversions.findings}
            actions={conversions.actions}
            campaigns={conversions.campaigns}
            tag={conversions.tag}
            pagesRead={conversions.pagesRead}
          />
        </div>
      </div>
      <aside
        className="flex min-h-0 flex-col gap-2.5 overflow-auto border-l border-line bg-paper p-3"
        aria-label="Goals"
      >
        <GoalsPanel
          actions={conversions.actions}
          campaigns={conversions.campaigns}
          more={conversions.more}
          first={campaignId}
        />
        <WorthPanel key={action.id} action={action} />
        {conversions.delay && <StillComing delay={conversions.delay} />}
      </aside>
    </div>
  );
}
