import type { LaneLook } from "./arrange";
import type { Choice, MapColour, MapLook } from "./useMap";

/** What was done to lanes, by their key. */
export interface LaneLooks {
  looks: Readonly<Record<string, LaneLook>>;
  names: Readonly<Record<string, string>>;
}

/** How a map is looked at, as it is saved under a name. */
export function lookOf(
  choice: Choice,
  colour: MapColour,
  pins: readonly number[],
  until: number | null,
  { looks, names }: LaneLooks,
): MapLook {
  const keys = [...new Set([...Object.keys(looks), ...Object.keys(names)])];
  return {
    ...choice,
    colour,
    until,
    pins: [...pins],
    changed: keys.map((key) => {
      const [kind = "Value"] = key.split(" ", 1);
      return {
        kind: kind as MapLook["changed"][number]["kind"],
        label: key.slice(kind.length + 1),
        shown: looks[key] ?? "Open",
        name: names[key] ?? null,
      };
    }),
  };
}

/** What a saved map did to its lanes. */
export function lanesOf(look: MapLook): LaneLooks {
  const looks: Record<string, LaneLook> = {};
  const names: Record<string, string> = {};
  for (const lane of look.changed) {
    const key = `${lane.kind} ${lane.label}`;
    looks[key] = lane.shown;
    if (lane.name !== null) names[key] = lane.name;
  }
  return { looks, names };
}

/** Where a saved map opens. */
export function addressOf(reviewId: number, map: { id: number; stepId: number; look: MapLook }): string {
  const { lanes, order, along, size, database, open, suggest, against, plan, colour, pins } = map.look;
  const query = new URLSearchParams({
    step: String(map.stepId),
    named: String(map.id),
    lanes,
    order,
    along,
    size,
    colour,
    ...Object.fromEntries(
      Object.entries({ database, open, suggest, against, plan, pins: pins.join(".") })
        .filter(([, value]) => Boolean(value))
        .map(([name, value]) => [name, String(value)]),
    ),
  });
  return `/r/${reviewId}/map?${query.toString()}`;
}
