import { useEffect, useState, type RefObject } from "react";

/**
 * The size of an element in whole pixels, followed as it changes; null until it was measured. It is measured when its
 * size changes, never because it was drawn: a state set after each letter of a line would make React give up on the
 * fiftieth letter of a quick writer and lose it.
 */
export function useSize(of: RefObject<HTMLElement | null>, isFollowed = true) {
  const [size, setSize] = useState<{ width: number; height: number } | null>(null);
  useEffect(() => {
    if (!isFollowed || !of.current) return;
    const observer = new ResizeObserver(
      ([entry]) =>
        entry && setSize({ width: Math.round(entry.contentRect.width), height: Math.round(entry.contentRect.height) }),
    );
    observer.observe(of.current);
    return () => observer.disconnect();
  }, [of, isFollowed]);
  return size;
}
