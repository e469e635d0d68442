import { useState } from 'react';
import { useScope } from '../../app/scope';
import { Choice } from '../../ui/Choice';
import { goHome } from '../../ui/home';
import { Empty, PageHead } from '../../ui/Panel';
import { BudgetTable } from './BudgetTable';
import { CampaignDay } from './CampaignDay';
import { onToday } from './day';
import { MonthPanel } from './MonthPanel';
import { MoneyPlan } from './MoneyPlan';
import { MovesPanel } from './MovesPanel';
import { SpreadPanel } from './SpreadPanel';
import { useBudgets, useCampaignBudget, useToday, type Budgets } from './useBudgets';

const periods = [4, 8, 13, 26].map((weeks) => ({ value: String(weeks), label: `Last ${weeks} weeks` }));

/** So many campaigns are all planned together unless a person says otherwise. */
const fewCampaigns = 12;

/** What campaigns may spend, what they spend, and what money would do elsewhere. */
export function BudgetsPage() {
  const [weeks, setWeeks] = useState(4);
  const budgets = useBudgets(weeks);
  if (budgets.isError)
    return (
      <p role="alert" className="p-4 text-brick">
        {budgets.error.message}
      </p>
    );
  if (!budgets.data) return null;
  const { data } = budgets;
  if (data.campaigns.length === 0)
    return (
      <Empty title="No campaigns yet">
        What each campaign may spend, what it spends, and which searches its budget misses stands here. Bring
        campaigns in, or add one in Structure.
      </Empty>
    );
  return (
    <div className="flex h-full min-h-0 flex-col">
      <PageHead title="Budgets" note={data.month.says}>
        <Choice
          label="Weeks"
          value={String(weeks)}
          options={periods}
          onChange={(next) => setWeeks(Number(next))}
        />
      </PageHead>
      <OfAccount budgets={data} weeks={weeks} />
    </div>
  );
}

function OfAccount({ budgets, weeks }: { budgets: Budgets; weeks: number }) {
  const { campaignId } = useScope();
  const [chosen, setChosen] = useState<number | null>(null);
  const [ticked, setTicked] = useState<readonly number[] | null>(null);
  const [day, setDay] = useState<string | null>(null);
  const rows = budgets.campaigns;
  const running = rows.filter((row) => !row.isPaused && row.budget !== null);
  const planned = ticked ?? (running.length <= fewCampaigns ? running.map((row) => row.id) : []);
  const current = rows.find((row) => row.id === (chosen ?? campaignId)) ?? rows[0];
  const campaign = useCampaignBudget(current?.id ?? null, weeks, day === onToday ? null : day);
  const ofToday = useToday();
  const today = ofToday.data?.campaigns.find((each) => each.campaignId === current?.id);
  if (!current) return null;
  return (
    <div className="grid min-h-0 flex-1 max-[1099px]:block max-[1099px]:overflow-auto min-[1100px]:grid-cols-[minmax(0,1fr)_340px]">
      <div className="min-h-0 overflow-auto bg-sheet">
        <BudgetTable
          rows={rows}
          current={current.id}
          onCurrent={(id) => {
            setChosen(id);
            // The focus comes back to the campaign after a day is chosen: it is the same one.
            if (id !== current.id) setDay(null);
          }}
          planned={planned}
          onPlanned={setTicked}
          onEdit={(id) => document.getElementById(`budget-${id}`)?.focus()}
        />
        {budgets.more && (
          <p className="px-3 py-2 text-ink-3">There are more campaigns than are listed here.</p>
        )}
        <p className="px-3 pt-2 text-ink-2" aria-live="polite">
          <strong className="text-ink">{current.name}:</strong> {current.says} {today?.says}
          {ofToday.isError && (
            <span className="text-ochre">
              <span aria-hidden>◆ </span>How today goes is not known: {ofToday.error.message}
            </span>
          )}
        </p>
        {campaign.isError && (
          <p role="alert" className="px-3 pt-2 text-brick">
            {campaign.error.message}
          </p>
        )}
        {campaign.data && (
          <div className="grid gap-3 p-3 max-[899px]:grid-cols-1 min-[900px]:grid-cols-2">
            <CampaignDay
              name={current.name}
              budget={campaign.data}
              today={today}
              day={day}
              onDay={(next) => {
                setDay(next);
                goHome();
              }}
            />
            <SpreadPanel campaignId={current.id} budget={campaign.data} />
          </div>
        )}
      </div>
      <aside
        className="flex min-h-0 flex-col gap-2.5 overflow-auto border-l border-line bg-paper p-3"
        aria-label="Plan"
      >
        <MoneyPlan campaigns={planned} weeks={weeks} />
        <MonthPanel month={budgets.month} />
        <MovesPanel />
      </aside>
    </div>
  );
}
