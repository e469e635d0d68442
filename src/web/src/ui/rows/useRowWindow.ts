import { useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { bodyOf, nearsWrongEnd, scrolled, standingAt, type Geometry, type Standing } from './rowWindow';

interface Options {
  count: number;
  rowHeight: number;
  /** Height of the titles that stay at the top of the scroller. */
  headHeight: number;
}

/** Rows above and below what is seen, so that a turn of the wheel finds them there. */
const overscan = 6;

interface View {
  first: number;
  last: number;
  shift: number;
  /** Grows whenever none of the rows in sight was in sight before. */
  jumps: number;
}

/**
 * The rows of a long list that are in sight, all of one height. There may be more of them than a browser can make an element
 * for: the element stays short then, and the rows are shifted against it.
 */
export function useRowWindow({ count, rowHeight, headHeight }: Options) {
  const scroller = useRef<HTMLDivElement>(null);
  const [view, setView] = useState<View>({ first: 0, last: 40, shift: 0, jumps: 0 });
  const standing = useRef<Standing>({ top: 0, shift: 0 });
  const geometry = useCallback(
    (): Geometry => ({
      rows: count * rowHeight,
      view: Math.max(rowHeight, (scroller.current?.clientHeight ?? 0) - headHeight),
    }),
    [count, rowHeight, headHeight],
  );

  const show = useCallback(
    (next: Standing, { view: seen }: Geometry) => {
      standing.current = next;
      const place = next.top + next.shift;
      const first = Math.max(0, Math.floor(place / rowHeight));
      const last = Math.min(Math.max(0, count - 1), Math.ceil((place + seen) / rowHeight));
      setView((current) =>
        current.first === first && current.last === last && current.shift === next.shift
          ? current
          : {
              first,
              last,
              shift: next.shift,
              jumps: current.jumps + (first > current.last || last < current.first ? 1 : 0),
            },
      );
    },
    [count, rowHeight],
  );

  const follow = useCallback(() => {
    const element = scroller.current;
    if (!element) return;
    const sizes = geometry();
    let next = scrolled(standing.current, element.scrollTop, sizes);
    if (nearsWrongEnd(next, sizes)) {
      next = standingAt(next.top + next.shift, sizes);
      element.scrollTo({ top: next.top });
    }
    show(next, sizes);
  }, [geometry, show]);

  useLayoutEffect(follow, [follow]);
  useEffect(() => {
    const element = scroller.current;
    if (!element) return;
    element.addEventListener('scroll', follow, { passive: true });
    const resized = new ResizeObserver(follow);
    resized.observe(element);
    return () => {
      element.removeEventListener('scroll', follow);
      resized.disconnect();
    };
  }, [follow]);

  /** Brings a row into sight, no further than it has to. */
  const scrollTo = useCallback(
    (row: number) => {
      const element = scroller.current;
      if (!element) return;
      const sizes = geometry();
      const place = standing.current.top + standing.current.shift;
      const [above, below] = [row * rowHeight, (row + 1) * rowHeight - sizes.view];
      const target = above < place ? above : below > place ? below : place;
      if (target === place) return;
      const near = Math.abs(target - place) <= sizes.view;
      const next = near
        ? { top: standing.current.top + (target - place), shift: standing.current.shift }
        : standingAt(target, sizes);
      element.scrollTo({ top: next.top });
      // The browser rounds what it is told; the rows stand where they are meant to.
      show(
        near ? scrolled(standing.current, element.scrollTop, sizes) : { ...next, top: element.scrollTop },
        sizes,
      );
    },
    [geometry, rowHeight, show],
  );

  const rows = useMemo(() => {
    const from = Math.max(0, view.first - overscan);
    const to = Math.min(count - 1, view.last + overscan);
    // Rows that come into sight take the elements of those that leave it: changing a text is cheaper than a new row.
    const slots = 2 ** Math.ceil(Math.log2(Math.max(1, to - from + 1)));
    return Array.from({ length: Math.max(0, to - from + 1) }, (_, place) => ({
      index: from + place,
      slot: (from + place) % slots,
      start: (from + place) * rowHeight - view.shift,
    }));
  }, [view, count, rowHeight]);

  return {
    /** Goes to the element that scrolls. */
    scroller,
    rows,
    first: view.first,
    last: view.last,
    jumps: view.jumps,
    bodyHeight: bodyOf({ rows: count * rowHeight, view: 0 }),
    scrollTo,
  };
}
