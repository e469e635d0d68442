/** One figure of two periods on one scale: now solid, before hatched. */
export function TwoBars({
  now,
  before,
  most,
}: {
  now: number | null | undefined;
  before: number | null | undefined;
  most: number;
}) {
  return (
    <>
      <div className="h-[9px] rounded-[2px] bg-plum" style={{ width: `${(100 * (now ?? 0)) / most}%` }} />
      <div
        className="mt-0.5 h-[5px] rounded-[2px]"
        style={{
          width: `${(100 * (before ?? 0)) / most}%`,
          background: 'repeating-linear-gradient(45deg, var(--color-line-strong) 0 3px, transparent 3px 6px)',
        }}
      />
    </>
  );
}
