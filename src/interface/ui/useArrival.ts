import { useEffect, useRef } from "react";

/**
 * Brings the row that an address named into the middle of its list, once, when the list is first there. Rows that were never
 * drawn have a guessed height, so it is done again when those around it have been drawn.
 */
export function useArrival(row: string | null) {
  const due = useRef(true);
  useEffect(() => {
    if (!due.current || row === null) return;
    due.current = false;
    let left = 3;
    const bring = () => {
      document.querySelector(row)?.scrollIntoView({ block: "center" });
      if (--left > 0) requestAnimationFrame(bring);
    };
    requestAnimationFrame(bring);
  }, [row]);
}
