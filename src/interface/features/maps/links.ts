import { count } from "../../ui/numbers";
import type { Mark } from "./arrange";
import type { MapWork } from "./useMap";

/** Where something stands in the picture, in pixels. */
export interface Point {
  x: number;
  y: number;
}

/** By work: the ordinals of the works on the map that cite it. */
export function citedBy(works: readonly MapWork[]): readonly (readonly number[])[] {
  const by: number[][] = works.map(() => []);
  works.forEach((w, citing) => w.cites.forEach((cited) => by[cited]?.push(citing)));
  return by;
}

/**
 * The fewest citations that lead from one work to another, whichever way each runs; null where none do.
 * O(links).
 */
export function pathBetween(
  works: readonly MapWork[],
  by: readonly (readonly number[])[],
  from: number,
  to: number,
): readonly number[] | null {
  const before = new Map<number, number>([[from, from]]);
  let front = [from];
  while (front.length > 0 && !before.has(to)) {
    const next: number[] = [];
    for (const at of front)
      for (const other of [...(works[at]?.cites ?? []), ...(by[at] ?? [])])
        if (!before.has(other)) {
          before.set(other, at);
          next.push(other);
        }
    front = next;
  }
  if (!before.has(to)) return null;
  const path = [to];
  for (let at = to; at !== from;) {
    at = before.get(at) ?? from;
    path.unshift(at);
  }
  return path;
}

/** An arc from one point to another: over them for what a work cites, under them for what cites it. */
export function arc(a: Point, b: Point, way: "over" | "under"): string {
  const lift = 14 + Math.min(70, Math.abs(a.x - b.x) * 0.22 + Math.abs(a.y - b.y) * 0.12);
  const high = Math.min(a.y, b.y);
  // At the top of the picture arcs are flatter: none leaves it.
  const bend = way === "over" ? Math.max(high - lift, (2 - 0.25 * high) / 0.75) : Math.max(a.y, b.y) + lift;
  const f = (n: number) => n.toFixed(1);
  // Works of one year stand over each other: their arc bows to the side, or it would be a stroke through what lies between.
  const bow = Math.abs(b.x - a.x) < 16 ? (way === "over" ? -26 : 26) : 0;
  const [from, to] = [a.x + (b.x - a.x) * 0.15 + bow, b.x - (b.x - a.x) * 0.15 + bow];
  return `M${f(a.x)} ${f(a.y)}C${f(from)} ${f(bend)} ${f(to)} ${f(bend)} ${f(b.x)} ${f(b.y)}`;
}

/** What a work cites and what cites it, on the map and elsewhere. */
export const linksSaid = ({ work }: Mark, citedHere: number): string =>
  `Cites ${count(work.cites.length)} here and ${count(work.citesOutside)} elsewhere, ` +
  `cited by ${count(citedHere)} here and ${count(work.citedOutside)} elsewhere`;
