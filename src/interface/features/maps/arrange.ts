import type { Dto } from "../../api/client";
import type { Point } from "./links";
import type { MapOf, MapWork } from "./useMap";

/** How a lane is shown: whole, as one line with its count, or not at all. */
export type LaneLook = NonNullable<Dto<"LaneShown">>;

/** A lane as it stands in the picture. */
export interface Lane {
  /** Its ordinal among the lanes of the map. */
  of: number;
  label: string;
  works: number;
  y: number;
  height: number;
  isFolded: boolean;
}

/** A work as it stands in the picture. */
export interface Mark {
  /** Its ordinal among the works of the map. */
  of: number;
  work: MapWork;
  x: number;
  y: number;
}

/** The picture: what is drawn after lanes were folded, hidden and renamed, and later years left out. */
export interface Arranged {
  lanes: readonly Lane[];
  marks: readonly Mark[];
  bins: readonly { x: number; y: number; width: number; height: number; works: readonly number[]; lane: number }[];
  /** By ordinal of the work: where it stands; undefined where it is not drawn. */
  at: ReadonlyMap<number, Mark>;
  /** Citations among the works that are drawn, by lane and lane: the fewest first. */
  flows: readonly LaneFlow[];
  height: number;
}

/** The citations between two lanes that are drawn, from the middle of the works that cite to that of those cited. */
export interface LaneFlow {
  citing: number;
  cited: number;
  links: number;
  from: Point;
  to: Point;
}

const foldedHeight = 24;

/** What a lane is known by, however lanes are ordered. */
export const laneKey = (lane: { kind: string; label: string }): string => `${lane.kind} ${lane.label}`;

/**
 * Moves lanes together over those that are folded or hidden; nothing else moves.
 * @param names what lanes are called by whoever renamed them, by their key
 * @param until works of later years are left out; null for none
 */
export function arrange(
  map: MapOf,
  looks: Readonly<Record<string, LaneLook>>,
  names: Readonly<Record<string, string>>,
  nameOf: (lane: MapOf["lanes"][number]) => string,
  until: number | null,
): Arranged {
  const lanes: Lane[] = [];
  const shift = new Map<number, number>();
  let y = 0;
  map.lanes.forEach((lane, of) => {
    const look = looks[laneKey(lane)] ?? "Open";
    if (look === "Hidden") return;
    const height = look === "Folded" ? foldedHeight : lane.height;
    lanes.push({
      of,
      label: names[laneKey(lane)] ?? nameOf(lane),
      works: lane.works,
      y,
      height,
      isFolded: look === "Folded",
    });
    if (look === "Open") shift.set(of, y - lane.y);
    y += height;
  });
  const isThere = (w: MapWork) => until === null || w.year === null || w.year <= until;
  const at = new Map<number, Mark>();
  const marks: Mark[] = [];
  map.works.forEach((work, of) => {
    const by = shift.get(work.lane);
    if (by === undefined || !isThere(work)) return;
    const mark = { of, work, x: work.x, y: work.y + by };
    at.set(of, mark);
    if (work.diameter > 0) marks.push(mark);
  });
  const bins = map.bins.flatMap((bin) => {
    const by = shift.get(bin.lane);
    const works = bin.works.filter((w) => at.has(w));
    return by === undefined || works.length === 0 ? [] : [{ ...bin, y: bin.y + by, works }];
  });
  return { lanes, marks, bins, at, flows: flowsOf(lanes, at), height: y };
}

/** How many citations run among the works that are drawn. */
export const linksDrawn = (picture: Arranged): number => picture.flows.reduce((sum, f) => sum + f.links, 0);

/** All links of what is drawn, added up by lane and lane. O(links). */
function flowsOf(lanes: readonly Lane[], at: ReadonlyMap<number, Mark>): readonly LaneFlow[] {
  const middle = new Map(lanes.map((l) => [l.of, l.y + l.height / 2]));
  const sums = new Map<string, { citing: number; cited: number; links: number; from: number; to: number }>();
  for (const { work, x } of at.values())
    for (const other of work.cites) {
      const cited = at.get(other);
      if (!cited) continue;
      const key = `${work.lane} ${cited.work.lane}`;
      const sum = sums.get(key) ?? { citing: work.lane, cited: cited.work.lane, links: 0, from: 0, to: 0 };
      sums.set(key, { ...sum, links: sum.links + 1, from: sum.from + x, to: sum.to + cited.x });
    }
  return [...sums.values()]
    .map(({ citing, cited, links, from, to }) => ({
      citing,
      cited,
      links,
      from: { x: from / links, y: middle.get(citing) ?? 0 },
      to: { x: to / links, y: middle.get(cited) ?? 0 },
    }))
    .sort((a, b) => a.links - b.links);
}
