import { useState } from "react";
import { laneKey, type LaneLook } from "./arrange";
import type { MapOf } from "./useMap";

/** Which lanes are folded or left out, and what they are called by whoever renamed them: for the picture in view only. */
export function useLaneLooks() {
  const [looks, setLooks] = useState<Record<string, LaneLook>>({});
  const [names, setNames] = useState<Record<string, string>>({});
  return {
    looks,
    names,
    isChanged: Object.keys(looks).length + Object.keys(names).length > 0,
    look: (lane: MapOf["lanes"][number] | undefined, look: LaneLook) => {
      if (lane) setLooks((l) => ({ ...l, [laneKey(lane)]: look }));
    },
    rename: (lane: MapOf["lanes"][number] | undefined, name: string) => {
      if (lane) setNames((n) => ({ ...n, [laneKey(lane)]: name || lane.label }));
    },
    /** All lanes as they were. */
    reset: () => {
      setLooks({});
      setNames({});
    },
  };
}
