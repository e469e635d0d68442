import { useState } from 'react';
import { useSearchParams } from 'react-router';
import type { Schemas } from '../../api/client';
import { useKinds } from '../../api/kinds';
import { useScope } from '../../app/scope';
import { plural } from '../../ui/format';
import { WeightMark } from '../../ui/Marks';
import { Empty, PageHead } from '../../ui/Panel';
import { Segments } from '../../ui/Segments';
import { BesideSide } from './BesideSide';
import { CoverageTable } from './CoverageTable';
import { FiguresTable } from './FiguresTable';
import { cellKey, useCoverage, useFigures, type Row } from './useExtensions';

const views = [
  { value: 'coverage', label: 'Coverage' },
  { value: 'figures', label: 'Figures' },
] as const;
type View = (typeof views)[number]['value'];

/** What stands beside ads: where it comes from, what would show, what it brings. */
export function ExtensionsPage() {
  const [parameters, setParameters] = useSearchParams();
  const view: View = parameters.get('view') === 'figures' ? 'figures' : 'coverage';
  const show = (next: View) =>
    setParameters((current) => {
      const address = new URLSearchParams(current);
      if (next === 'figures') address.set('view', next);
      else address.delete('view');
      return address;
    });
  return (
    <div className="flex h-full min-h-0 flex-col">
      <PageHead title="Extensions" note={<LevelsNote />}>
        <Segments label="View" value={view} segments={views} onChange={show} />
      </PageHead>
      {view === 'coverage' ? <CoverageView /> : <FiguresView />}
    </div>
  );
}

/** Which levels take part is the network's own rule. */
function LevelsNote() {
  const coverage = useCoverage(useScope());
  if (!coverage.data) return null;
  return coverage.data.levels === 'pooled'
    ? 'account, campaign and ad group add up; the best show'
    : 'the nearest level replaces the farther ones';
}

function FiguresView() {
  const figures = useFigures(useScope());
  if (figures.isError)
    return (
      <p role="alert" className="p-4 text-brick">
        {figures.error.message}
      </p>
    );
  if (!figures.data) return null;
  return figures.data.length === 0 ? (
    <Empty title="No extensions yet">
      Callouts, sitelinks and numbers stand beside ads and give people more reasons and ways to come. Add them
      under Coverage.
    </Empty>
  ) : (
    <div className="min-h-0 flex-1 overflow-auto bg-sheet" tabIndex={0} role="region" aria-label="Figures">
      <FiguresTable figures={figures.data} />
    </div>
  );
}

function CoverageView() {
  const scope = useScope();
  const coverage = useCoverage(scope);
  const kinds = useKinds();
  const [kind, setKind] = useState<Schemas['ItemKind']>('callout');
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [current, setCurrent] = useState<string | null>(null);
  const rows = coverage.data?.rows ?? [];
  const [first] = rows;
  if (coverage.isError)
    return (
      <p role="alert" className="p-4 text-brick">
        {coverage.error.message}
      </p>
    );
  if (!coverage.data || !first) return null;
  const rowOf = (key: string | null): Row | undefined =>
    rows.find((row) => row.cells.some((cell) => cellKey(row, cell.kind) === key));
  const here = rowOf(current) ?? first;
  const column = here.cells.find((cell) => cellKey(here, cell.kind) === current)?.kind ?? kind;
  return (
    <div className="grid min-h-0 flex-1 max-[1099px]:block max-[1099px]:overflow-auto min-[1100px]:grid-cols-[minmax(0,1fr)_336px]">
      <div className="min-h-0 overflow-auto bg-sheet">
        <CoverageTable
          rows={rows}
          kind={kind}
          chosen={chosen}
          current={cellKey(here, column)}
          onCurrent={(row, name) => setCurrent(cellKey(row, name))}
          onChoose={(name, keys) => {
            setKind(name);
            setChosen(new Set(keys));
          }}
        />
        {coverage.data.more && (
          <p className="px-3 py-2 text-ink-3">There is more: choose a campaign at the top.</p>
        )}
        {coverage.data.gaps.length > 0 && (
          <section aria-labelledby="missing" className="m-3 rounded-lg border border-line bg-sheet p-3">
            <h2 id="missing" className="mb-1 text-[14px]">
              What is missing
            </h2>
            <ul>
              {coverage.data.gaps.map((gap) => (
                <li key={gap.kind}>
                  {gap.below > 0 && (
                    <WeightMark weight="caution">
                      {plural(gap.below, 'ad group')} with fewer than {kinds.count(gap.fewest, gap.kind)} in
                      reach
                    </WeightMark>
                  )}
                  {gap.below > 0 && gap.fewer > 0 && <br />}
                  {gap.fewer > 0 && (
                    <WeightMark weight="hint">
                      {plural(gap.fewer, 'ad group')} with fewer than {kinds.count(gap.wanted, gap.kind)}
                    </WeightMark>
                  )}
                </li>
              ))}
            </ul>
          </section>
        )}
      </div>
      <BesideSide
        row={here}
        kind={chosen.size > 0 ? kind : column}
        chosen={rows.filter((row) => chosen.has(cellKey(row, kind)))}
      />
    </div>
  );
}
