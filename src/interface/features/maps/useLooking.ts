import { useMemo, useState, type KeyboardEvent } from "react";
import type { Arranged, Mark } from "./arrange";

const cell = 32;
const reach = 12;

/** Finds the mark under a point. */
export function useNearest(picture: Arranged | null) {
  return useMemo(() => {
    const grid = new Map<string, Mark[]>();
    for (const mark of picture?.marks ?? []) {
      const key = `${Math.floor(mark.x / cell)} ${Math.floor(mark.y / cell)}`;
      grid.set(key, [...(grid.get(key) ?? []), mark]);
    }
    return (x: number, y: number): Mark | null => {
      let best: { mark: Mark; far: number } | null = null;
      for (let i = -1; i <= 1; i++)
        for (let j = -1; j <= 1; j++)
          for (const mark of grid.get(`${Math.floor(x / cell) + i} ${Math.floor(y / cell) + j}`) ?? []) {
            const far = Math.hypot(mark.x - x, mark.y - y);
            if (far <= Math.max(reach, mark.work.diameter / 2) && far < (best?.far ?? Infinity)) best = { mark, far };
          }
      return best?.mark ?? null;
    };
  }, [picture]);
}

/** The work that arrows lead to: along its lane from year to year, or to the nearest in the next lane. */
function beyond(picture: Arranged, from: Mark, key: string): Mark | null {
  const marks = [...picture.at.values()];
  if (key === "ArrowLeft" || key === "ArrowRight") {
    const lane = marks
      .filter((m) => m.work.lane === from.work.lane)
      .sort((a, b) => a.x - b.x || a.y - b.y || a.of - b.of);
    return lane[lane.indexOf(from) + (key === "ArrowRight" ? 1 : -1)] ?? null;
  }
  const open = picture.lanes.filter((l) => marks.some((m) => m.work.lane === l.of));
  const next = open[open.findIndex((l) => l.of === from.work.lane) + (key === "ArrowDown" ? 1 : -1)];
  const there = marks.filter((m) => m.work.lane === next?.of);
  return there.reduce<Mark | null>(
    (best, m) => (best === null || Math.abs(m.x - from.x) < Math.abs(best.x - from.x) ? m : best),
    null,
  );
}

/** Looking around on the map: what the pointer is over, what the keys are at, and the link one walks along. */
export function useLooking(picture: Arranged | null, by: readonly (readonly number[])[]) {
  const [hovered, setHovered] = useState<number | null>(null);
  const [at, setAt] = useState<number | null>(null);
  const [step, setStep] = useState<number | null>(null);
  const mark = at === null ? undefined : picture?.at.get(at);
  const links = mark && at !== null ? [...mark.work.cites, ...(by[at] ?? [])].filter((o) => picture?.at.has(o)) : [];
  const link = step === null ? null : (links[step] ?? null);
  const goTo = (of: number | null) => {
    setAt(of);
    setStep(null);
    setHovered(null);
  };
  return {
    hovered,
    hover: setHovered,
    at: mark ? at : null,
    link,
    goTo,
    /** Whether the link is one to a work that is cited. */
    isBack: link !== null && step !== null && step < (mark?.work.cites.filter((o) => picture?.at.has(o)).length ?? 0),
    /** Goes where a key leads; says whether it was one that leads somewhere. */
    key: (e: KeyboardEvent): boolean => {
      if (!picture) return false;
      if (e.key.startsWith("Arrow")) {
        const first = picture.marks[0] ?? [...picture.at.values()][0];
        const to = mark ? beyond(picture, mark, e.key) : first;
        if (to) goTo(to.of);
        return true;
      }
      if (e.key === "Tab" && mark) {
        // Past the last link Tab goes on through the page, as everywhere.
        const next = (step ?? -1) + (e.shiftKey ? -1 : 1);
        if (next < 0 || next >= links.length) {
          setStep(null);
          return false;
        }
        setStep(next);
        return true;
      }
      if (e.key === "Enter" && link !== null) {
        goTo(link);
        return true;
      }
      if (e.key === "Escape" && (step !== null || at !== null)) {
        if (step !== null) setStep(null);
        else goTo(null);
        return true;
      }
      return false;
    },
  };
}
