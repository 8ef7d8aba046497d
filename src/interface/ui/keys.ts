import { useEffect, useRef, useSyncExternalStore } from "react";

/** Single-letter keys, their meaning, and the order they are shown in by "?". */
export const keyList = [
  ["/", "go to the search line"],
  ["j", "next work"],
  ["k", "previous work"],
  ["Enter", "read in the pane"],
  ["p", "keep"],
  ["x", "set aside"],
  ["t", "tag"],
  ["c", "cite"],
  ["Space", "pick, to act on several"],
  ["Shift J", "pick, and go on to the next"],
  ["d", "dense or roomy rows"],
  ["[", "backward trail: what it cites"],
  ["]", "forward trail: what cites it"],
  ["=", "neighbours: what it has much in common with"],
  ["u", "undo your last decision"],
  ["b", "open or fold the board"],
  ["w", "words: terms to add and to exclude"],
  ["g s", "go to Search"],
  ["g t", "go to Trails"],
  ["g m", "go to the map"],
  ["g g", "go to Gather"],
  ["g e", "go to Read"],
  ["g r", "go to Report"],
  ["g d", "go to Databases"],
  ["g k", "go to the kept works"],
  ["Ctrl K", "go to, or do …"],
  ["?", "show these keys"],
] as const;

const offKey = "zendle.letterKeys";
const listeners = new Set<() => void>();
const areOn = () => localStorage.getItem(offKey) !== "off";

/** Whether single-letter keys act (WCAG 2.1.4: they can be switched off). */
export function useLetterKeys(): [boolean, (on: boolean) => void] {
  const on = useSyncExternalStore((l) => {
    listeners.add(l);
    return () => listeners.delete(l);
  }, areOn);
  return [
    on,
    (next) => {
      if (next) localStorage.removeItem(offKey);
      else localStorage.setItem(offKey, "off");
      listeners.forEach((l) => l());
    },
  ];
}

function isTyping(target: EventTarget | null): boolean {
  if (!(target instanceof HTMLElement)) return false;
  return target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName);
}

function isFloating(): boolean {
  return document.querySelector('[role="dialog"],[role="menu"],[role="listbox"]:not([data-inline])') !== null;
}

let pendingG = 0;

/** Acts on keys outside fields and floating parts. Names: "j", "?", "g s", "Enter". A handler that returns false lets the key go on. */
export function useKeys(handlers: Partial<Record<string, () => boolean | undefined>>): void {
  const latest = useRef(handlers);
  useEffect(() => {
    latest.current = handlers;
  });
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (e.ctrlKey || e.metaKey || e.altKey || isTyping(e.target) || isFloating() || !areOn() || e.defaultPrevented)
        return;
      const onControl = e.target instanceof HTMLElement && e.target.closest("button,a,[role=slider]") !== null;
      if ((e.key === "Enter" || e.key === " ") && onControl) return;
      const name = Date.now() - pendingG < 1200 ? `g ${e.key}` : e.key;
      const handler = latest.current[name];
      if (e.key === "g" && !handler) pendingG = Date.now();
      if (handler && handler() !== false) {
        pendingG = 0;
        e.preventDefault();
      }
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
}
