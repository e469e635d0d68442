import { useEffect, useState } from 'react';

/** What has rested for a moment: what is typed or gone through quickly is not asked about letter by letter. */
export function useSettled<T>(value: T, rest = 250): T {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(value), rest);
    return () => clearTimeout(timer);
  }, [value, rest]);
  return settled;
}
