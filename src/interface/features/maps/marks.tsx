import type { Dto } from "../../api/client";
import type { MapColour, MapOf, MapWork } from "./useMap";

type Stage = Dto<"WorkRowDto">["stage"];

/** Colours of lanes: told apart in both themes, and by where lanes stand. */
export const laneColours = [
  "var(--lane-1)",
  "var(--lane-2)",
  "var(--lane-3)",
  "var(--lane-4)",
  "var(--lane-5)",
  "var(--lane-6)",
  "var(--lane-7)",
  "var(--lane-8)",
] as const;

/** The colour of a lane by its ordinal; those that hold what is left over are grey. */
export const laneColour = (map: MapOf, of: number): string =>
  map.lanes[of]?.kind === "Value" ? (laneColours[of % laneColours.length] ?? "var(--quiet)") : "var(--quiet)";

/** The colour of a work: its lane's, or that of the first of its tags; works without one are grey then. */
export const workColour = (map: MapOf, colour: MapColour, work: MapWork): string => {
  if (colour === "Lane") return laneColour(map, work.lane);
  const [tag] = work.tags;
  return tag === undefined ? "var(--quiet)" : tagColour(tag);
};

/** The colour of a tag by its ordinal on the map. */
export const tagColour = (tag: number): string => laneColours[tag % laneColours.length] ?? "var(--quiet)";

/** The number that stands at a mark whose colour is a tag's, so that colour never speaks alone. */
export const tagNumber = (colour: MapColour, work: MapWork): string | null =>
  colour === "Tag" && work.tags[0] !== undefined ? String(work.tags[0] + 1) : null;

const f = (n: number) => Number(n.toFixed(2));

/** The outline of a mark about a point: a pennant for kept, a cross for set aside, a ring for found. */
export function markPath(stage: Stage, x: number, y: number, diameter: number): string {
  const r = diameter / 2;
  if (stage === "Kept") {
    const w = r * 0.84;
    return `M${f(x - w)} ${f(y - r)}h${f(2 * w)}v${f(2 * r)}l${f(-w)} ${f(-0.6 * r)}l${f(-w)} ${f(0.6 * r)}z`;
  }
  if (stage === "SetAside") {
    const a = r * 0.72;
    return `M${f(x - a)} ${f(y - a)}l${f(2 * a)} ${f(2 * a)}M${f(x + a)} ${f(y - a)}l${f(-2 * a)} ${f(2 * a)}`;
  }
  const c = Math.max(1, r - 0.8);
  return `M${f(x - c)} ${f(y)}a${f(c)} ${f(c)} 0 1 0 ${f(2 * c)} 0a${f(c)} ${f(c)} 0 1 0 ${f(-2 * c)} 0z`;
}

/** How a mark is painted in its lane's colour. */
export function markPaint(stage: Stage, colour: string, diameter: number) {
  if (stage === "Kept") return { fill: colour };
  const strokeWidth = diameter < 9 ? 1.3 : 1.8;
  return {
    fill: stage === "Found" ? "var(--paper)" : "none",
    stroke: colour,
    strokeWidth,
    strokeLinecap: "round" as const,
  };
}
