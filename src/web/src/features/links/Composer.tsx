import { useRef, useState } from 'react';
import type { ApiProblem, Command, Schemas, SheetRow } from '../../api/client';
import { ConflictDialog } from '../../sheet/editing/ConflictDialog';
import { useRowCommand } from '../../sheet/useRowCommand';
import { useKinds } from '../../api/kinds';
import { tell } from '../../api/hooks';
import type { Scope } from '../../app/scope';
import { Button } from '../../ui/Button';
import { isHome } from '../../ui/home';
import { WeightMark } from '../../ui/Marks';
import { added } from './template';
import { useTried, useVariables } from './useLinks';

const usual =
  '{+page}?utm_source={network}&utm_medium=cpc&utm_campaign={campaign}&utm_term={keyword}{&device,match}';

/** Writes the tracking template of an item, with what it makes of real clicks. */
export function Composer({ row, name, scope }: { row: SheetRow; name: string; scope: Scope }) {
  const kinds = useKinds();
  const kept = typeof row.values.trackingTemplate === 'string' ? row.values.trackingTemplate : '';
  const [typed, setTyped] = useState<string | null>(null);
  /** The version on which typing began: what somebody else did to it since is told, not overwritten. */
  const begun = useRef(row.version);
  const type = (template: string) => {
    if (typed === null) begun.current = row.version;
    setTyped(template);
  };
  const field = useRef<HTMLInputElement>(null);
  const variables = useVariables();
  const text = typed ?? kept;
  // Without a template of its own, the one that comes from above holds.
  const tried = useTried(text === '' ? null : text, scope);
  const [conflict, setConflict] = useState<{ problem: ApiProblem; command: Command } | null>(null);
  const run = useRowCommand((problem, command) => setConflict({ problem, command }), tell);
  const put = (template: string) => {
    run.change(
      { ...row, version: begun.current },
      { type: 'setFields', items: [{ kind: row.kind, id: row.id }], values: { trackingTemplate: template } },
      // What was typed since stays.
      () => setTyped((current) => (current === template ? null : current)),
    );
  };
  const insert = (variable: string) => {
    const input = field.current;
    type(added(text, variable, input?.selectionStart ?? text.length));
    input?.focus();
  };
  const blocked = tried.data?.problems.some((problem) => problem.weight === 'blocker') ?? false;
  const changed = text !== kept;
  return (
    <section aria-labelledby="composer" className="border-b border-line px-4 py-3">
      <form
        onSubmit={(event) => {
          event.preventDefault();
          if (changed && !blocked) put(text);
        }}
      >
        <label id="composer" htmlFor="template" className="block text-[15px] font-semibold">
          Tracking template of {name}{' '}
          <span className="text-[12.5px] font-normal text-ink-3">
            {kept === '' &&
              (row.kind === 'account' ? 'none yet' : 'none of its own: what stands above holds')}
          </span>
        </label>
        <div className="mt-1.5 flex gap-2">
          <input
            {...isHome}
            id="template"
            ref={field}
            value={text}
            spellCheck={false}
            autoComplete="off"
            aria-invalid={blocked || undefined}
            aria-describedby="template-problems"
            placeholder={kinds.field('account', 'trackingTemplate')?.example}
            onChange={(event) => type(event.target.value)}
            onKeyDown={(event) => {
              if (event.key === 'Escape' && changed) {
                event.stopPropagation();
                setTyped(null);
              }
            }}
            className={`min-w-0 flex-1 rounded-sm border bg-white px-2 py-1 ${blocked ? 'border-brick' : 'border-line-strong'}`}
          />
          <Button type="submit" tone="ember" disabled={!changed || blocked || run.isPending}>
            {text === '' ? 'Take it away' : 'Set it'}
          </Button>
        </div>
        <ul id="template-problems" className="mt-1">
          {(tried.data?.problems ?? []).map((problem) => (
            <li key={problem.code}>
              <WeightMark weight={problem.weight}>{problem.detail}</WeightMark>
            </li>
          ))}
        </ul>
      </form>
      <div className="mt-2 flex flex-wrap items-center gap-1.5">
        <span className="text-[12.5px] text-ink-3">Say of each click:</span>
        {variables.data?.map((variable) => (
          <button
            key={variable.name}
            type="button"
            title={`${variable.meaning} For example ${variable.example}`}
            onClick={() => insert(variable.name)}
            className="rounded-sm bg-tide-wash px-1.5 py-[1px] text-[12.5px] text-tide hover:underline"
          >
            {variable.name.replaceAll('_', ' ')}
          </button>
        ))}
        <Button className="ml-auto" onClick={() => type(usual)}>
          Usual parameters
        </Button>
      </div>
      <h2 className="mt-4 mb-1 text-[14px]">What clicks on real items lead to</h2>
      {tried.isError && (
        <p role="alert" className="text-brick">
          {tried.error.message}
        </p>
      )}
      {tried.data?.clicks.length === 0 && (
        <p className="text-ink-3">There is no ad with a keyword here yet.</p>
      )}
      <table className="w-full" aria-label="What clicks on real items lead to">
        <tbody>
          {tried.data?.clicks.map((click) => (
            <Click key={`${click.campaign} ${click.adGroup} ${click.keyword}`} click={click} />
          ))}
        </tbody>
      </table>
      {conflict && (
        <ConflictDialog
          problem={conflict.problem}
          command={conflict.command}
          mine={text}
          onClose={() => {
            setConflict(null);
            setTyped(null);
          }}
        />
      )}
    </section>
  );
}

function Click({ click }: { click: Schemas['TriedClick'] }) {
  const more = click.address?.startsWith(click.page) ? click.page.length : 0;
  const own = click.problems.filter((problem) => problem.weight !== 'blocker');
  return (
    <tr className="border-t border-line-soft align-top">
      <th scope="row" className="w-[230px] py-1 pr-3 text-left font-normal">
        <span className="font-semibold">{click.keyword}</span>
        <span className="block truncate text-[12.5px] text-ink-3">
          {click.campaign} / {click.adGroup}
        </span>
      </th>
      <td className="py-1 break-all">
        {click.address ? (
          <>
            <span className="text-ink-2">{click.address.slice(0, more)}</span>
            <span className="text-tide">{click.address.slice(more)}</span>
          </>
        ) : (
          <span className="text-ink-3">no address</span>
        )}
        {own.map((problem) => (
          <span key={problem.code} className="block break-normal">
            <WeightMark weight={problem.weight}>{problem.detail}</WeightMark>
          </span>
        ))}
      </td>
    </tr>
  );
}
