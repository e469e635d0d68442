import { Button } from '../../ui/Button';
import { CheckField } from '../../ui/Field';
import { Empty } from '../../ui/Panel';
import { count, moment, seconds } from '../../ui/format';
import { WeightMark } from '../../ui/Marks';
import { Progress } from '../../ui/Progress';
import { useLinkChecks, useNightly } from './useLinks';

/** What following every link of the account showed, once for each distinct one. */
export function LinkChecks() {
  const { checks, job, isRunning, begin, stop } = useLinkChecks();
  const nightly = useNightly();
  const rows = checks.data ?? [];
  const [first] = rows;
  const amiss = rows.filter((row) => row.weight).length;
  return (
    <section aria-labelledby="links" className="px-4 py-3">
      <div className="mb-2 flex items-center gap-3">
        <h2 id="links" className="text-[15px]">
          Links of the account
        </h2>
        <span className="text-[12.5px] text-ink-3">
          {first && `${count(rows.length)} followed ${moment(first.checkedAt)}, ${count(amiss)} to look at`}
        </span>
        <span className="ml-auto flex items-center gap-2">
          {nightly.chosen !== undefined && (
            <CheckField
              label="again every night"
              checked={nightly.chosen}
              onChange={() => nightly.choose(!nightly.chosen)}
            />
          )}
          {isRunning && job && (
            <span className="w-40">
              <Progress label="Links followed" done={job.done} total={job.total ?? null} />
            </span>
          )}
          {isRunning ? (
            <Button onClick={stop}>Stop</Button>
          ) : (
            <Button onClick={begin}>Follow all links</Button>
          )}
        </span>
      </div>
      {checks.isError && (
        <p role="alert" className="text-brick">
          {checks.error.message}
        </p>
      )}
      {checks.data && rows.length === 0 && !isRunning && (
        <Empty title="No link was followed yet">
          <i>Follow all links</i> opens each distinct landing page once, with its parameters, as a phone
          would, and says which do not answer, are slow, lead elsewhere or lose parameters on the way.
        </Empty>
      )}
      {rows.length > 0 && (
        <table className="w-full">
          <thead>
            <tr className="border-b border-line-strong text-left text-[12px] text-ink-2">
              <th scope="col" className="py-1 pr-3 font-semibold">
                Landing page
              </th>
              <th scope="col" className="px-2 text-right font-semibold">
                Items
              </th>
              <th scope="col" className="px-2 text-right font-semibold whitespace-nowrap">
                Opens in
              </th>
              <th scope="col" className="px-2 font-semibold">
                What was found
              </th>
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => (
              <tr key={row.address} className="border-b border-line-soft align-top">
                <th scope="row" className="max-w-[360px] py-1 pr-3 text-left font-normal">
                  <span className="block truncate" title={row.address}>
                    {row.page}
                  </span>
                </th>
                <td className="px-2 py-1 text-right">{count(row.items)}</td>
                <td className="px-2 py-1 text-right whitespace-nowrap">{seconds(row.milliseconds)}</td>
                <td className="px-2 py-1">
                  {row.weight ? (
                    <>
                      <WeightMark weight={row.weight}>{row.message}</WeightMark>
                      <span className="block text-[12.5px] text-ink-2">{row.detail}</span>
                    </>
                  ) : (
                    <span className="text-moss">{row.message}</span>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}
