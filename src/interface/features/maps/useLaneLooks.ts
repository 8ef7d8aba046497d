import { useState } from "react";
import { laneKey, type LaneLook } from "./arrange";
import type { LaneLooks } from "./looks";
import type { MapOf } from "./useMap";

const untouched: LaneLooks = { looks: {}, names: {} };

/**
 * Which lanes are folded or left out, and what they are called by whoever renamed them.
 * @param start what a named map begins with
 */
export function useLaneLooks(start: LaneLooks = untouched) {
  const [{ looks, names }, set] = useState(start);
  return {
    looks,
    names,
    isChanged: Object.keys(looks).length + Object.keys(names).length > 0,
    look: (lane: MapOf["lanes"][number] | undefined, look: LaneLook) => {
      if (lane) set((l) => ({ ...l, looks: { ...l.looks, [laneKey(lane)]: look } }));
    },
    rename: (lane: MapOf["lanes"][number] | undefined, name: string) => {
      if (lane) set((l) => ({ ...l, names: { ...l.names, [laneKey(lane)]: name || lane.label } }));
    },
    /** All lanes as they were. */
    reset: () => set(untouched),
  };
}
