import { useCallback, useMemo } from "react";
import { arrange } from "./arrange";
import { citedBy } from "./links";
import type { LaneLooks } from "./looks";
import { useMap, type Choice, type MapOf } from "./useMap";
import { withoutWords } from "./words";

/**
 * The map of a step and what is drawn of it.
 * @param frame width and height in pixels; null until they were measured
 * @param until works of later years are left out; null for none
 * @param enabled whether the step is known
 */
export function useShownMap(
  reviewId: number,
  stepId: number,
  choice: Choice,
  frame: { width: number; height: number } | null,
  { looks, names }: LaneLooks,
  until: number | null,
  enabled: boolean,
) {
  const map = useMap(reviewId, stepId, choice, frame, enabled);
  const { data } = map;
  const nameOf = useCallback(
    (lane: { kind: string; label: string; values: number }) =>
      lane.kind === "Value"
        ? lane.label
        : lane.kind === "Others"
          ? `${lane.values} smaller lanes`
          : withoutWords[choice.lanes],
    [choice.lanes],
  );
  const arranged = useCallback((of: MapOf) => arrange(of, looks, names, nameOf, until), [looks, names, nameOf, until]);
  return {
    map,
    /** Arranges any drawing of the map as this one is. */
    arranged,
    /** What is drawn; null while there is no map. */
    picture: useMemo(() => (data ? arranged(data) : null), [data, arranged]),
    /** By work: the ordinals of the works on the map that cite it. */
    by: useMemo(() => citedBy(data?.works ?? []), [data]),
    /** By id: the ordinal of a work on the map. */
    ordinals: useMemo(() => new Map(data?.works.map((w, i) => [w.id, i])), [data]),
  };
}
