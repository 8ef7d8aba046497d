import { dayOf } from "../../ui/days";
import { count, works } from "../../ui/numbers";
import type { NamedMap } from "./useNamedMaps";

/** What became of the set of a named map since it was saved; nothing where all is as it was. */
export const sinceSaved = ({ came, gone }: NamedMap): string | null => {
  const said = [
    came > 0 && `${works(came)} ${came === 1 ? "has" : "have"} come`,
    gone > 0 && `${count(gone)} ${gone === 1 ? "has" : "have"} gone`,
  ].filter(Boolean);
  return said.length === 0 ? null : said.join(", ");
};

/** Which named map is open, who saved it when, and what changed since. */
export function NamedStrip({ map }: { map: NamedMap }) {
  return (
    <p className="shrink-0 border-b border-line bg-soft px-[18px] py-1 text-[12px] text-quiet" data-named={map.id}>
      <b className="font-semibold text-ink">{map.name}</b>, saved by {map.by} on {dayOf(map.at)} with {works(map.then)}
      {sinceSaved(map) === null ? "; the set is the same today." : `. Since then ${sinceSaved(map)}.`}
    </p>
  );
}
