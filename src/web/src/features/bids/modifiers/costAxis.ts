/** A scale on which twice as dear is as far anywhere: costs differ by times, not by pounds. */
export interface CostAxis {
  /** Where a cost is drawn: 0 to 1. */
  at: (cost: number) => number;
  ticks: readonly number[];
}

const steps = [1, 2, 5];
const mostTicks = 6;

/** The axis on which all of these costs find room; none without any. */
export function costAxis(costs: readonly (number | null)[]): CostAxis | null {
  const known = costs.filter((cost): cost is number => cost !== null && cost > 0 && Number.isFinite(cost));
  if (known.length === 0) return null;
  const low = Math.min(...known) / 1.15;
  const high = Math.max(...known) * 1.15;
  const width = Math.log(high / low);
  const at = (cost: number) => Math.min(Math.max(Math.log(cost / low) / width, 0), 1);
  const all: number[] = [];
  for (let power = Math.floor(Math.log10(low)); power <= Math.ceil(Math.log10(high)); power++)
    for (const step of steps) {
      const tick = step * 10 ** power;
      if (tick >= low && tick <= high) all.push(tick);
    }
  const every = Math.ceil(all.length / mostTicks);
  return { at, ticks: all.filter((_, place) => place % every === 0) };
}
