import { dayOf } from "../../ui/days";
import type { MapAlong, MapOf } from "./useMap";

/** Columns that carry a label: far enough from each other, at round values. */
export function isTicked(map: MapOf, along: MapAlong): (c: MapOf["columns"][number]) => boolean {
  const values = map.columns.filter((c) => c.kind === "Values");
  const [first] = values;
  if (!first) return () => true;
  const per = first.to - first.from + 1;
  const room = along === "Found" ? 76 : 44;
  const every = [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000]
    .map((n) => n * per)
    .find((n) => (n / per) * first.width >= room);
  return (c) => c.kind !== "Values" || (every !== undefined && c.from % every === 0);
}

/** What stands over a column. */
export function columnLabel(c: MapOf["columns"][number], along: MapAlong): string {
  if (c.kind === "Unknown") return along === "Year" ? "no year" : "";
  const value = (n: number) => (along === "Found" ? dayNumbered(n) : String(n));
  return c.kind === "Earlier" ? `to ${value(c.to)}` : value(c.from);
}

/** Days are counted from 1 January of the year 1; computers count from 1970, which is so many days later. */
const before1970 = 719_162;
const dayLong = 86_400_000;

/** A day by its number. */
const dayNumbered = (number: number): string => dayOf((number - before1970) * dayLong, "UTC");
