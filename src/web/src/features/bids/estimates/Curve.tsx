import type { Currency } from '../../../ui/format';
import { money } from '../../../ui/format';
import { ticks } from '../../../ui/ticks';
import type { Estimates } from '../useBids';

const width = 316;
const height = 168;
const left = 34;
const bottom = 22;

/** Clicks over the bid: the band is where they lie nine times in ten, the line the likeliest, the dashes the network’s. */
export function Curve({ curve, currency }: { curve: Estimates['curve']; currency: Currency }) {
  const { own, network } = curve;
  const bids = [...own.map((week) => week.bid), ...network.map((week) => week.bid)];
  const [lowest, highest] = [Math.min(...bids), Math.max(...bids)];
  const highestShown = Math.max(
    1,
    ...own.map((week) => week.clicks.high),
    ...network.map((week) => week.clicks),
  );
  const scale = ticks(highestShown);
  const most = scale.at(-1) ?? 1;
  const x = (bid: number) =>
    highest === lowest
      ? left
      : left +
        ((Math.log(bid) - Math.log(lowest)) / (Math.log(highest) - Math.log(lowest))) * (width - left - 6);
  const y = (clicks: number) => height - bottom - (clicks / most) * (height - bottom - 8);
  const line = (points: [number, number][]) =>
    points.map(([bid, clicks], at) => `${at === 0 ? 'M' : 'L'}${x(bid)} ${y(clicks)}`).join('');
  const band =
    line(own.map((week) => [week.bid, week.clicks.high])) +
    own
      .toReversed()
      .map((week) => `L${x(week.bid)} ${y(week.clicks.low)}`)
      .join('') +
    'Z';
  const shown = own.filter((_, at) => at % 2 === 0 || own.length < 6);
  return (
    <>
      <svg
        viewBox={`0 0 ${width} ${height}`}
        className="w-full"
        role="img"
        aria-label={words(curve, currency)}
      >
        {scale.map((value) => (
          <g key={value}>
            <line x1={left} x2={width} y1={y(value)} y2={y(value)} className="stroke-line-soft" />
            <text x={left - 4} y={y(value) + 4} textAnchor="end" className="fill-ink-3 text-[11px]">
              {value}
            </text>
          </g>
        ))}
        <path d={band} className="fill-plum-wash" />
        <path
          d={line(own.map((week) => [week.bid, week.clicks.likely]))}
          fill="none"
          strokeWidth="2"
          className="stroke-plum"
        />
        {network.length > 0 && (
          <path
            d={line(network.map((week) => [week.bid, week.clicks]))}
            fill="none"
            strokeWidth="1.5"
            strokeDasharray="4 3"
            className="stroke-tide"
          />
        )}
        {curve.now && (
          <line
            x1={x(curve.now.bid)}
            x2={x(curve.now.bid)}
            y1={8}
            y2={height - bottom}
            strokeDasharray="2 3"
            className="stroke-ink-3"
          />
        )}
        {shown.map((week) => (
          <text
            key={week.bid}
            x={x(week.bid)}
            y={height - 6}
            textAnchor={x(week.bid) > width - 24 ? 'end' : 'middle'}
            className="fill-ink-3 text-[11px]"
          >
            {money(week.bid, currency)}
          </text>
        ))}
      </svg>
      <p className="mt-1 flex flex-wrap gap-x-3 text-[12px] text-ink-2">
        <span>
          <span aria-hidden className="mr-1 inline-block h-[3px] w-[14px] bg-plum align-middle" />
          Fendrik, with its range
        </span>
        {network.length > 0 && (
          <span>
            <span
              aria-hidden
              className="mr-1 inline-block w-[14px] border-t-2 border-dashed border-tide align-middle"
            />
            the network
          </span>
        )}
      </p>
    </>
  );
}

function words({ own, title }: Estimates['curve'], currency: Currency) {
  return `${title}: ${own
    .map(
      (week) =>
        `at ${money(week.bid, currency)} ${week.clicks.likely} clicks, ${week.clicks.low} to ${week.clicks.high}`,
    )
    .join('; ')}`;
}
