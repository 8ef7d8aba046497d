import { useEffect, useMemo, useRef } from "react";

/** What keys went to in a list. */
export interface GoneTo<T> {
  /** The one that counts: last gone to, even where the page does not show it yet. */
  now: () => T | null;
  /** To be said whenever one goes on. */
  go: (to: T) => void;
}

/**
 * Keys come faster than the page is drawn: what is shown follows through the address a moment later, and a key pressed in
 * between means what was last gone to.
 */
export function useGoneTo<T>(shown: T | null): GoneTo<T> {
  const last = useRef(shown);
  const onTheWay = useRef(new Set<T>());
  useEffect(() => {
    if (shown === last.current) onTheWay.current.clear();
    else if (shown === null || !onTheWay.current.delete(shown)) last.current = shown;
  }, [shown]);
  return useMemo(
    () => ({
      now: () => last.current,
      go: (to) => {
        last.current = to;
        onTheWay.current.add(to);
      },
    }),
    [],
  );
}
