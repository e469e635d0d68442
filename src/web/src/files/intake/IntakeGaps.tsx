import { useState } from 'react';
import { answer, api, ApiProblem, type Schemas } from '../../api/client';
import { useAccount } from '../../api/account';
import { plural } from '../../ui/format';
import { TextField } from '../../ui/Field';
import { WeightMark } from '../../ui/Marks';
import { Panel } from '../../ui/Panel';

/** What the list leaves open and publishing needs, to be filled in for all alike or one by one. */
export function IntakeGaps({ intake, onFilled }: { intake: Schemas['IntakeView']; onFilled: () => void }) {
  if (intake.budgets.length === 0 && intake.maxCpcs.length === 0) return null;
  const open = [...intake.budgets, ...intake.maxCpcs].some((gap) => gap.filled == null);
  return (
    <Panel
      title={
        open ? <WeightMark weight="blocker">Missing, needed before publishing</WeightMark> : 'Filled in here'
      }
    >
      <div className="space-y-2">
        {intake.budgets.length > 0 && (
          <GapGroup key="budget" budget intake={intake} gaps={intake.budgets} onFilled={onFilled} />
        )}
        {intake.maxCpcs.length > 0 && (
          <GapGroup key="cpc" intake={intake} gaps={intake.maxCpcs} onFilled={onFilled} />
        )}
      </div>
    </Panel>
  );
}

interface GapGroupProps {
  intake: Schemas['IntakeView'];
  gaps: readonly Schemas['IntakeGap'][];
  budget?: boolean;
  onFilled: () => void;
}

function GapGroup({ intake, gaps, budget = false, onFilled }: GapGroupProps) {
  const [each, setEach] = useState(false);
  const title = budget
    ? `Daily budget, ${plural(gaps.length, 'campaign')}`
    : `Max CPC, ${plural(gaps.length, 'ad group')}`;
  const amounts = new Set(gaps.map((gap) => gap.filledText));
  const common = amounts.size === 1 ? ([...amounts][0] ?? null) : null;
  return (
    <div>
      <FillField intake={intake} budget={budget} label={title} filled={common} onFilled={onFilled} />
      {gaps.length > 1 && (
        <button
          type="button"
          className="mt-0.5 text-[12px] text-plum underline"
          aria-expanded={each}
          onClick={() => setEach(!each)}
        >
          {each ? 'All alike' : 'One by one'}
        </button>
      )}
      {each && (
        <div className="mt-1 space-y-1 border-l-2 border-line pl-2">
          {gaps.slice(0, 100).map((gap) => (
            <FillField
              key={`${gap.campaignKey}/${gap.adGroupKey}`}
              intake={intake}
              budget={budget}
              gap={gap}
              label={budget ? gap.campaign : `${gap.adGroup ?? ''}`}
              filled={gap.filledText ?? null}
              onFilled={onFilled}
            />
          ))}
        </div>
      )}
    </div>
  );
}

interface FillFieldProps {
  intake: Schemas['IntakeView'];
  budget: boolean;
  label: string;
  gap?: Schemas['IntakeGap'];
  filled: string | null;
  onFilled: () => void;
}

function FillField({ intake, budget, label, gap, filled, onFilled }: FillFieldProps) {
  const account = useAccount();
  const shown = filled ?? '';
  const [text, setText] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const fill = async () => {
    if (text === null || text.trim() === '' || text === shown) return;
    try {
      await answer(
        api.POST('/api/accounts/{accountId}/intakes/{intakeId}/fill', {
          params: { path: { accountId: account.id, intakeId: intake.id } },
          body: {
            budget,
            campaignKey: gap?.campaignKey ?? null,
            adGroupKey: budget ? null : (gap?.adGroupKey ?? null),
            amount: text,
          },
        }),
      );
      setProblem(null);
      setText(null);
      onFilled();
    } catch (error) {
      setProblem(error instanceof ApiProblem ? error.message : 'It could not be set.');
    }
  };
  return (
    <form
      className="grid grid-cols-[1fr_104px] items-center gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        void fill();
      }}
    >
      <span className="truncate" title={label}>
        {label}
      </span>
      <TextField
        label={label}
        hideLabel
        before={account.currencySign.trim()}
        inputMode="decimal"
        value={text ?? shown}
        problem={problem}
        onChange={(event) => setText(event.target.value)}
        onBlur={() => void fill()}
      />
    </form>
  );
}
