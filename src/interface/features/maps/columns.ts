import type { MapOf } from "./useMap";

/** Columns that carry a label: far enough from each other, at round values. */
export function isTicked(map: MapOf): (c: MapOf["columns"][number]) => boolean {
  const values = map.columns.filter((c) => c.kind === "Values");
  const [first] = values;
  if (!first) return () => true;
  const per = first.to - first.from + 1;
  const every = [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000]
    .map((n) => n * per)
    .find((n) => (n / per) * first.width >= 44);
  return (c) => c.kind !== "Values" || (every !== undefined && c.from % every === 0);
}

/** What stands over a column. */
export function columnLabel(c: MapOf["columns"][number], isYear: boolean): string {
  if (c.kind === "Unknown") return isYear ? "no year" : "";
  if (c.kind === "Earlier") return `to ${c.to}`;
  return String(c.from);
}
