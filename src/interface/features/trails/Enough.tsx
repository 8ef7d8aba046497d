import type { Dto } from "../../api/client";
import { count, works } from "../../ui/numbers";

/** Whether the rounds brought enough: how much each still brings, how many works are missing by estimate, what still arrives. */
export function Enough({ rounds }: { rounds: Dto<"RoundsDto"> }) {
  return (
    <div className="grid gap-3 text-[13px]">
      <Saturation rounds={rounds.rounds} />
      <Estimate enough={rounds.enough} />
      {rounds.arriving && <Arriving arriving={rounds.arriving} />}
    </div>
  );
}

/** What each round brought of what was looked at in it. */
function Saturation({ rounds }: { rounds: readonly Dto<"RoundDto">[] }) {
  if (rounds.length === 0)
    return (
      <p className="text-quiet">
        No round has been made yet. The first follows the trails of all kept works, both ways.
      </p>
    );
  const share = (part: number, whole: number) => (whole === 0 ? "–" : `${Math.round((100 * part) / whole)} %`);
  return (
    <table className="w-full">
      <thead className="text-[11.5px] text-faint">
        <tr>
          <th className="text-left font-normal">round</th>
          {["led to", "known before", "new", "kept", "left", "kept of those looked at"].map((h) => (
            <th key={h} className="pl-2 text-right font-normal">
              {h}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rounds.map((r) => (
          <tr key={r.number}>
            <td>{r.number}</td>
            <td className="pl-2 text-right">{count(r.found)}</td>
            <td className="pl-2 text-right text-quiet">{share(r.found - r.new, r.found)}</td>
            <td className="pl-2 text-right">{count(r.new)}</td>
            <td className="pl-2 text-right font-bold">{count(r.kept)}</td>
            <td className="pl-2 text-right">{count(r.left)}</td>
            <td className="pl-2 text-right">{share(r.kept, r.candidates - r.left)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** The estimate of what is missing, with what it rests on; or why there is none. */
function Estimate({ enough: e }: { enough: Dto<"EnoughDto"> }) {
  const grounds =
    `${e.ofRecord ? "The searches of record" : "The searches"} found ${count(e.bySearches)} of the ${works(e.kept)} kept; ` +
    `${count(e.byTies)} are tied by a citation to another kept work; ${count(e.both)} are both.`;
  return (
    <section aria-label="What is missing">
      <p>{grounds}</p>
      {e.estimate ? (
        <>
          <p className="mt-1">
            By this estimate, at least <b className="font-bold">{count(Math.round(e.estimate.low))}</b> to{" "}
            <b className="font-bold">{count(Math.round(e.estimate.high))}</b> such works exist in these databases; the
            best single estimate is <b className="font-bold">{count(Math.round(e.estimate.all))}</b>, of which{" "}
            {count(e.estimate.known)} are known.
          </p>
          <p className="mt-1 text-[12.5px] text-quiet">
            Chapman’s estimate with its 95 % interval. It assumes that searches and citations find works independently.
            They do not: trails start from what the searches found, so the true number is probably higher. Read it as
            “at least”.
          </p>
        </>
      ) : (
        <p className="mt-1 text-quiet">
          {e.left > 0
            ? `There is no estimate while ${count(e.left)} ${e.left === 1 ? "candidate is" : "candidates are"} not looked at.`
            : "There is no estimate yet: at least seven works must be found both ways."}
        </p>
      )}
    </section>
  );
}

/** What kind of works the last fruitful round brought. */
function Arriving({ arriving: a }: { arriving: Dto<"ArrivingDto"> }) {
  const parts = [
    a.cited > 0 ? `${count(a.cited)} ${a.cited === 1 ? "is" : "are"} cited by a seed` : null,
    a.citing > 0 ? `${count(a.citing)} ${a.citing === 1 ? "cites" : "cite"} one` : null,
    a.untied > 0 ? `${count(a.untied)} ${a.untied === 1 ? "is a neighbour" : "are neighbours"} only` : null,
  ].filter(Boolean);
  const years = a.from === null ? "" : a.from === a.to ? `, from ${a.from}` : `, from ${a.from} to ${a.to}`;
  return (
    <p>
      What still arrived: {a.isLast ? "the last round" : `round ${a.number}, the last that brought any,`} brought{" "}
      {works(a.kept)} worth keeping{years}: {parts.join(", ")}. They are in{" "}
      {a.databases.map((d) => `${d.database} (${count(d.works)})`).join(", ")}.
    </p>
  );
}
