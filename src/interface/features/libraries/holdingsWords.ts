import type { Dto } from "../../api/client";
import { dayOf } from "../../ui/days";
import { count } from "../../ui/numbers";

type Library = Dto<"LibraryDto">;

/** How the holdings of a library stand, in a few words. */
export function holdingsWords(l: Library): string {
  const isComing = l.job?.state === "Running" || l.job?.state === "Waiting";
  if (!l.loadedAt) return isComing ? "its holdings are being fetched" : "no holdings yet";
  const lines = `holdings of ${dayOf(l.loadedAt)}, ${count(l.lines)} ${l.lines === 1 ? "line" : "lines"}`;
  return isComing ? `${lines}, being fetched again` : l.job ? `${lines}, not refreshed since` : lines;
}

/** Why the holdings of a library did not come; null when they did. */
export const holdingsFault = (l: Library): string | null => (l.job?.state === "Failed" ? l.job.message : null);
