import { useState } from 'react';
import type { Schemas } from '../../../api/client';
import { useKinds } from '../../../api/kinds';
import { figureOf, useMeasures } from '../../../api/measures';
import { ticks } from '../../../ui/ticks';
import type { Frame } from './WeekPicture';

const [width, height, left, top, right, bottom] = [920, 260, 56, 22, 14, 30];
const mostDrawn = 200;

interface Props {
  data: Schemas['ResultsAnswer'];
  level: Schemas['ItemKind'];
  onDrill: (row: Schemas['ResultsRow']) => void;
  frame: Frame;
}

/** What each item cost against what it brought: above the line is cheaper than all together, below it dearer. */
export function ScatterPicture({ data, level, onDrill, frame }: Props) {
  const measures = useMeasures();
  const noun = useKinds().noun(level, 2);
  const [hovered, setHovered] = useState<number | null>(null);
  const points = data.rows
    .map((row) => ({
      row,
      cost: figureOf(row.figures, 'cost'),
      conversions: figureOf(row.figures, 'conversions'),
    }))
    .filter((point) => (point.cost.now ?? 0) > 0 || (point.conversions.now ?? 0) > 0)
    .slice(0, mostDrawn);
  const xTicks = ticks(Math.max(0, ...points.map((point) => point.cost.now ?? 0)));
  const yTicks = ticks(Math.max(0, ...points.map((point) => point.conversions.now ?? 0)));
  const [xMost, yMost] = [xTicks.at(-1) ?? 1, yTicks.at(-1) ?? 1];
  const x = (cost: number) => left + ((width - left - right) * cost) / xMost;
  const y = (conversions: number) => top + (height - top - bottom) * (1 - conversions / yMost);
  // The line ends where it leaves the picture.
  const each = figureOf(data.total, 'costPerConversion').now;
  const end = each ? Math.min(xMost, yMost * each) : null;
  const said = points.find((point) => point.row.id === hovered);
  const text = (point: (typeof points)[number]) =>
    `${point.row.name}: ${measures.write('cost', point.cost.now)} for ${measures.write('conversions', point.conversions.now)}, ${measures.write('costPerConversion', figureOf(point.row.figures, 'costPerConversion').now)} each`;
  const title = `Cost and conversions of ${noun}`;
  const short = (key: string, value: number) => measures.write(key, value).replace(/\.00?(?=%?$)/, '');
  return frame(
    <svg viewBox={`0 0 ${width} ${height}`} role="img" aria-label={title} className="block w-full">
      {yTicks.map((value) => (
        <g key={value}>
          <path
            d={`M${left} ${y(value)}H${width - right}`}
            fill="none"
            className={value === 0 ? 'stroke-line-strong' : 'stroke-line-soft'}
          />
          <text x={left - 8} y={y(value) + 4} textAnchor="end" className="fill-ink-3 text-[11.5px]">
            {short('conversions', value)}
          </text>
        </g>
      ))}
      {xTicks.map((value) => (
        <text
          key={value}
          x={x(value)}
          y={height - 10}
          textAnchor={value === xMost ? 'end' : 'middle'}
          className="fill-ink-3 text-[11.5px]"
        >
          {short('cost', value)}
        </text>
      ))}
      {each && end !== null && (
        <path
          d={`M${x(0)} ${y(0)}L${x(end)} ${y(end / each)}`}
          fill="none"
          strokeDasharray="5 4"
          className="stroke-ink-3"
        />
      )}
      {said && said.cost.before !== null && said.conversions.before !== null && (
        <path
          d={`M${x(Math.min(xMost, said.cost.before))} ${y(Math.min(yMost, said.conversions.before))}L${x(said.cost.now ?? 0)} ${y(said.conversions.now ?? 0)}`}
          fill="none"
          strokeWidth={2}
          className="stroke-plum-soft"
        />
      )}
      {points.map((point) => (
        <g
          key={point.row.id}
          className="cursor-pointer"
          onMouseEnter={() => setHovered(point.row.id)}
          onMouseLeave={() => setHovered(null)}
          onClick={() => onDrill(point.row)}
        >
          <circle cx={x(point.cost.now ?? 0)} cy={y(point.conversions.now ?? 0)} r={12} fill="transparent" />
          <circle
            cx={x(point.cost.now ?? 0)}
            cy={y(point.conversions.now ?? 0)}
            r={said === point ? 6 : 4.5}
            fillOpacity={0.8}
            className="fill-plum"
          />
        </g>
      ))}
      {named(points, x, y).map((point) => (
        <text
          key={point.row.id}
          x={x(point.cost.now ?? 0) + (x(point.cost.now ?? 0) > width - 150 ? -9 : 9)}
          y={y(point.conversions.now ?? 0) + 4}
          textAnchor={x(point.cost.now ?? 0) > width - 150 ? 'end' : 'start'}
          className="pointer-events-none fill-ink-2 stroke-sheet text-[11.5px]"
          strokeWidth={3}
          paintOrder="stroke"
        >
          {point.row.name}
        </text>
      ))}
      {said && (
        <text x={width - 12} y={14} textAnchor="end" className="fill-ink text-[12.5px] font-semibold">
          {text(said)}
        </text>
      )}
    </svg>,
    {
      name: title,
      words: points.map(text),
      note: `across: cost · up: conversions · dashed: ${measures.write('costPerConversion', each)} each, as all together`,
    },
  );
}

/** The dearest that have room for their names. */
function named<T extends { cost: { now: number | null }; conversions: { now: number | null } }>(
  points: readonly T[],
  x: (cost: number) => number,
  y: (conversions: number) => number,
): T[] {
  const placed: T[] = [];
  for (const point of points) {
    if (placed.length >= 12) break;
    const isFree = placed.every(
      (other) =>
        Math.abs(y(other.conversions.now ?? 0) - y(point.conversions.now ?? 0)) > 13 ||
        Math.abs(x(other.cost.now ?? 0) - x(point.cost.now ?? 0)) > 150,
    );
    if (isFree) placed.push(point);
  }
  return placed;
}
