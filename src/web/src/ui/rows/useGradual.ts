import { useEffect, useState } from 'react';

/** Rows drawn in one frame after a jump: more would make the frame late. */
const inOneFrame = 6;

/**
 * How many of the rows in sight are drawn. After a jump, when all of them are new, they are drawn some in each frame, so
 * that no frame takes long; else all of them.
 */
export function useGradual(jumps: number, ready: boolean, count: number): number {
  const [state, setState] = useState({ jumps, drawn: Infinity });
  if (state.jumps !== jumps) setState({ jumps, drawn: 0 });
  useEffect(() => {
    if (!ready || state.drawn >= count) return;
    const frame = requestAnimationFrame(() =>
      setState((current) => ({ ...current, drawn: current.drawn + inOneFrame })),
    );
    return () => cancelAnimationFrame(frame);
  }, [state, ready, count]);
  return state.drawn >= count ? count : state.drawn;
}
