import type { Dto } from "../../api/client";
import { whyNeighbour } from "../../set/neighbourWords";
import { Press } from "../../ui/Press";
import { count } from "../../ui/numbers";
import { StageMark } from "../../ui/StageMark";
import { linksDrawn, type Arranged } from "./arrange";

/** The map in words: lane by lane, year by year, with the same acts. */
export function MapTable({
  picture,
  by,
  size,
  suggested,
  picked,
  onOpen,
  onPick,
}: {
  picture: Arranged;
  by: readonly (readonly number[])[];
  /** What the size of marks says; null where it says nothing. */
  size: string | null;
  /** Works beside the set that were asked for. */
  suggested: readonly Dto<"SuggestionDto">[];
  picked: ReadonlySet<number>;
  onOpen: (id: number) => void;
  onPick: (id: number) => void;
}) {
  return (
    <div className="min-h-0 flex-1 overflow-auto px-[18px] pb-4">
      <Summary picture={picture} />
      <Between picture={picture} />
      <SuggestedRows suggested={suggested} picture={picture} onOpen={onOpen} />
      {picture.lanes.map((lane) => {
        const inLane = [...picture.at.values()]
          .filter((m) => m.work.lane === lane.of)
          .sort((a, b) => (a.work.year ?? 0) - (b.work.year ?? 0) || a.of - b.of);
        return (
          <table key={lane.of} className="mb-4 w-full text-[12.5px]">
            <caption className="pb-1 text-left text-[13.5px] font-semibold">
              {lane.label} <span className="font-normal text-quiet">{count(inLane.length)}</span>
            </caption>
            <thead>
              <tr className="text-left text-[11.5px] text-quiet [&>th]:font-normal">
                <th className="w-7">pick</th>
                <th className="w-12">year</th>
                <th className="w-7">stage</th>
                <th>work</th>
                {size !== null && <th className="w-24 text-right">{size}</th>}
                <th className="w-16 text-right">cites here</th>
                <th className="w-20 text-right">cited here</th>
              </tr>
            </thead>
            <tbody>
              {inLane.map(({ of, work }) => (
                <tr key={of} className="border-t border-soft align-top [&>td]:py-1">
                  <td>
                    <input
                      type="checkbox"
                      checked={picked.has(of)}
                      onChange={() => onPick(work.id)}
                      aria-label={`Pick ${work.title}`}
                      className="h-4 w-4 accent-[var(--pine)]"
                    />
                  </td>
                  <td>{work.year ?? "n.d."}</td>
                  <td>
                    <StageMark stage={work.stage} />
                  </td>
                  <td>
                    <Press className="text-left hover:underline" onClick={() => onOpen(work.id)}>
                      {work.name}: <span className="font-serif">{work.title}</span>
                    </Press>
                  </td>
                  {size !== null && <td className="text-right">{count(work.size)}</td>}
                  <td className="text-right">{count(work.cites.length)}</td>
                  <td className="text-right">{count(by[of]?.length ?? 0)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        );
      })}
    </div>
  );
}

/** What belongs beside the set, with the lane it would stand in and why. */
function SuggestedRows({
  suggested,
  picture,
  onOpen,
}: {
  suggested: readonly Dto<"SuggestionDto">[];
  picture: Arranged;
  onOpen: (id: number) => void;
}) {
  if (suggested.length === 0) return null;
  const names = new Map(picture.lanes.map((l) => [l.of, l.label]));
  return (
    <table className="mb-4 w-full text-[12.5px]">
      <caption className="pb-1 text-left text-[13.5px] font-semibold">
        Suggested <span className="font-normal text-quiet">{count(suggested.length)}</span>
      </caption>
      <thead>
        <tr className="text-left text-[11.5px] text-quiet [&>th]:font-normal">
          <th className="w-12">year</th>
          <th>work</th>
          <th>lane</th>
          <th>why</th>
        </tr>
      </thead>
      <tbody>
        {suggested.map(({ work, inCommon }) => (
          <tr key={work.id} className="border-t border-soft align-top [&>td]:py-1 [&>td]:pr-2" data-suggested-row>
            <td>{work.year ?? "n.d."}</td>
            <td>
              <Press className="text-left hover:underline" onClick={() => onOpen(work.id)}>
                {work.name}: <span className="font-serif">{work.title}</span>
              </Press>
            </td>
            <td>{names.get(work.lane)}</td>
            <td className="text-quiet">{whyNeighbour(inCommon)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** How often the works of each lane cite those of each other. */
function Between({ picture }: { picture: Arranged }) {
  const links = new Map(picture.flows.map((b) => [`${b.citing} ${b.cited}`, b.links]));
  if (picture.lanes.length < 2 || links.size === 0) return null;
  return (
    <div tabIndex={0} role="region" aria-label="Citations from lane to lane" className="mb-4 overflow-x-auto">
      <table className="text-[12.5px]">
        <caption className="pb-1 text-left text-[13.5px] font-semibold">Citations from lane to lane</caption>
        <thead>
          <tr className="text-[11.5px] text-quiet [&>th]:px-2 [&>th]:text-right [&>th]:font-normal">
            <th className="text-left!">cites</th>
            {picture.lanes.map((l) => (
              <th key={l.of} className="max-w-[110px] truncate" title={l.label}>
                {l.label}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {picture.lanes.map((citing) => (
            <tr key={citing.of} className="border-t border-soft">
              <th className="max-w-[180px] truncate pr-2 text-left font-semibold" title={citing.label}>
                {citing.label}
              </th>
              {picture.lanes.map((cited) => (
                <td key={cited.of} className="px-2 text-right">
                  {count(links.get(`${citing.of} ${cited.of}`) ?? 0)}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** What the picture shows, in sentences: lanes, the years with most works, and the lanes that cite each other most. */
function Summary({ picture }: { picture: Arranged }) {
  const years = new Map<number, number>();
  for (const { work } of picture.at.values())
    if (work.year !== null) years.set(work.year, (years.get(work.year) ?? 0) + 1);
  const densest = [...years].sort((a, b) => b[1] - a[1] || b[0] - a[0]).slice(0, 3);
  const names = new Map(picture.lanes.map((l) => [l.of, l.label]));
  const bridges = picture.flows
    .filter((b) => b.citing !== b.cited)
    .slice(-3)
    .reverse();
  return (
    <p className="max-w-[75ch] py-2.5 text-[13px]">
      {count(picture.at.size)} works in {picture.lanes.length} lanes, {count(linksDrawn(picture))} citations among them.
      {densest.length > 0 && ` Most works are of ${densest.map(([y, n]) => `${y} (${n})`).join(", ")}.`}
      {bridges.length > 0 &&
        ` Most citations between lanes: ${bridges
          .map((b) => `${names.get(b.citing) ?? ""} cites ${names.get(b.cited) ?? ""} ${count(b.links)} times`)
          .join("; ")}.`}
    </p>
  );
}
