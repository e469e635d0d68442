import { useCallback, useEffect, useRef, useState } from 'react';

interface Looked<Answer> {
  key: string;
  data?: Answer;
  error?: Error;
}

/**
 * What a command would do. It is asked for when typing rests, one at a time, and an older answer never replaces a newer.
 * @param key What is asked, as text; none while there is nothing to ask.
 * @param rest Milliseconds without a change before it is asked.
 */
export function usePreview<Answer>(
  key: string | null,
  ask: (signal: AbortSignal) => Promise<Answer>,
  rest = 0,
) {
  const [round, setRound] = useState(0);
  const [looked, setLooked] = useState<Looked<Answer> | null>(null);
  const underWay = useRef<Promise<unknown>>(Promise.resolve());
  const asking = useRef(ask);
  useEffect(() => {
    asking.current = ask;
  });
  const asked = key === null ? null : `${round} ${key}`;
  useEffect(() => {
    if (asked === null) return;
    const stop = new AbortController();
    const begin = async () => {
      await underWay.current;
      if (stop.signal.aborted) return;
      const answer: Promise<Looked<Answer>> = asking.current(stop.signal).then(
        (data) => ({ key: asked, data }),
        (error: unknown) => ({
          key: asked,
          error: error instanceof Error ? error : new Error(String(error)),
        }),
      );
      underWay.current = answer;
      const next = await answer;
      if (!stop.signal.aborted) setLooked(next);
    };
    const timer = window.setTimeout(() => void begin(), rest);
    return () => {
      window.clearTimeout(timer);
      stop.abort();
    };
  }, [asked, rest]);
  const fresh = asked !== null && looked?.key === asked;
  return {
    /** The newest answer; what it is of may have been changed since. */
    data: asked === null ? undefined : looked?.data,
    error: fresh ? looked.error : undefined,
    /** The answer is of what is asked now. */
    fresh,
    /** Asks once more: the account has moved on. */
    renew: useCallback(() => setRound((before) => before + 1), []),
  };
}
