import { useMemo } from "react";
import { useSearchParams } from "react-router";
import type { Choice, MapColour } from "./useMap";

/** So many cards stand side by side. */
export const mostPins = 6;

/** What is chosen about a map: what it is laid out by, and how it is shown. */
export interface Chosen {
  choice: Choice;
  colour: MapColour;
  /** Works whose cards are pinned. */
  pins: readonly number[];
  /** The named map that is open; null for none. */
  named: number | null;
  change: (next: Partial<Choice> & { colour?: MapColour; pins?: readonly number[]; named?: number | null }) => void;
}

const number = (params: URLSearchParams, name: string) => Number(params.get(name) ?? 0) || 0;

/** What is chosen stands in the address, so that a map can be sent to somebody. */
export function useChoice(): Chosen {
  const [params, setParams] = useSearchParams();
  return useMemo(
    () => ({
      choice: {
        lanes: (params.get("lanes") ?? "Topic") as Choice["lanes"],
        order: (params.get("order") ?? "Size") as Choice["order"],
        along: (params.get("along") ?? "Year") as Choice["along"],
        size: (params.get("size") ?? "Cited") as Choice["size"],
        database: number(params, "database"),
        open: params.get("open") === "true",
        suggest: number(params, "suggest"),
        against: number(params, "against"),
        plan: number(params, "plan"),
      },
      colour: params.get("colour") === "Tag" ? "Tag" : "Lane",
      pins: (params.get("pins") ?? "")
        .split(".")
        .map(Number)
        .filter((id) => id > 0)
        .slice(0, mostPins),
      named: number(params, "named") || null,
      change: (next) =>
        setParams(
          (old) => {
            const p = new URLSearchParams(old);
            for (const [name, value] of Object.entries(next)) {
              const written = Array.isArray(value) ? value.join(".") : String(value ?? "");
              if (written === "") p.delete(name);
              else p.set(name, written);
            }
            return p;
          },
          { replace: true },
        ),
    }),
    [params, setParams],
  );
}
