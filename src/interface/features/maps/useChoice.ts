import { useMemo } from "react";
import { useSearchParams } from "react-router";
import type { Choice } from "./useMap";

/** What is chosen stands in the address, so that a map can be sent to somebody. */
export function useChoice(): [Choice, (next: Partial<Choice>) => void] {
  const [params, setParams] = useSearchParams();
  const choice: Choice = useMemo(
    () => ({
      lanes: (params.get("lanes") ?? "Topic") as Choice["lanes"],
      order: (params.get("order") ?? "Size") as Choice["order"],
      along: (params.get("along") ?? "Year") as Choice["along"],
      size: (params.get("size") ?? "Cited") as Choice["size"],
      database: Number(params.get("database") ?? 0) || 0,
      open: params.get("open") === "true",
      suggest: Number(params.get("suggest") ?? 0) || 0,
      against: Number(params.get("against") ?? 0) || 0,
    }),
    [params],
  );
  return [
    choice,
    (next) =>
      setParams(
        (old) => {
          const p = new URLSearchParams(old);
          for (const [name, value] of Object.entries(next)) p.set(name, String(value));
          return p;
        },
        { replace: true },
      ),
  ];
}
