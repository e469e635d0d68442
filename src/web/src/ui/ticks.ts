/** Round numbers for the axis, from zero. */
export function ticks(most: number): number[] {
  if (most <= 0) return [0, 1];
  const rough = most / 4;
  const power = 10 ** Math.floor(Math.log10(rough));
  const step = ([1, 2, 2.5, 5, 10].find((each) => each * power >= rough) ?? 10) * power;
  return Array.from({ length: Math.ceil(most / step) + 1 }, (_, place) => place * step);
}
