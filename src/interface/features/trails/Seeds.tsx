import type { Dto } from "../../api/client";
import { StageMark } from "../../ui/StageMark";
import { count, works } from "../../ui/numbers";
import type { NeighbourKind, SeedOrder } from "../../set/useTrail";
import { SeedMark } from "./TieMarks";
import { kindMeaning, kindName } from "../../set/neighbourWords";
import { Press } from "../../ui/Press";
import { TextButton } from "../../ui/TextButton";

/** The seeds in the middle, between their past and their future. */
export function Seeds({
  of,
  neighbours,
  seedIds,
  onOpen,
  reseed,
  onNeighbours,
  order,
  onAlone,
  kept,
}: {
  of: Pick<Dto<"TrailDto">, "seeds" | "seedCount">;
  /** The neighbours of the seeds by kind; none while they are counted, null where they are the list. */
  neighbours: readonly Dto<"KindCountDto">[] | null;
  onOpen: (id: number) => void;
  /** All seeds. */
  seedIds: readonly number[];
  /** Asks the same of other seeds, of all kept works for null; null where the seeds are what they are. */
  reseed: ((ids: readonly number[] | null) => void) | null;
  /** In which order they stand, and how it is changed; null where they have but one. */
  order: [SeedOrder, (order: SeedOrder) => void] | null;
  /** Leaves what only a seed brings in. */
  onAlone: (seed: Dto<"SeedDto">) => void;
  /** Makes the neighbours of a kind, or of all, the list. */
  onNeighbours: (kind: NeighbourKind | null) => void;
  kept: number;
}) {
  return (
    <section aria-label="Seeds" className="flex min-h-0 flex-col border-x border-line bg-raised">
      <div className="flex shrink-0 items-baseline justify-between px-3.5 pt-2.5 pb-1">
        <h2 className="font-serif text-[16px] font-semibold">{of.seedCount === 1 ? "Seed" : "Seeds"}</h2>
        <b className="text-[19px] leading-none font-bold">{count(of.seedCount)}</b>
      </div>
      {order && of.seedCount > 1 && (
        <div className="shrink-0 px-3.5 pb-1 text-[12px]">
          <TextButton
            aria-pressed={order[0] === "Alone"}
            className="text-quiet"
            onClick={() => order[1](order[0] === "Alone" ? "Given" : "Alone")}
          >
            {order[0] === "Alone" ? "in the order given" : "by what only they add"}
          </TextButton>
        </div>
      )}
      <ol className="min-h-0 flex-1 divide-y divide-line overflow-y-auto px-3.5">
        {of.seeds.map((s) => (
          <li key={s.workId} className="group grid grid-cols-[auto_minmax(0,1fr)_auto] gap-x-2 py-2">
            <span className="pt-[2px]">
              <SeedMark n={s.number} />
            </span>
            <Press className="min-w-0 text-left" onClick={() => onOpen(s.workId)}>
              <span className="flex items-center gap-1.5 text-[12.5px] font-semibold">
                <span className="truncate">{s.people || "No people named"}</span>
                <span className="shrink-0">{s.year ?? "n.d."}</span>
                {s.stage !== "Found" && <StageMark stage={s.stage} />}
              </span>
              <span className="line-clamp-3 font-serif text-[14px] leading-[1.3]">{s.title || "without a title"}</span>
              <span className="text-[12px] text-quiet">
                {count(s.cites)} it cites · {count(s.cited)} {s.cited === 1 ? "cites" : "cite"} it
              </span>
            </Press>
            {s.alone !== null && of.seedCount > 1 && (
              <span className="col-start-2 row-start-2 text-[12px]">
                {s.alone === 0 ? (
                  <span className="text-quiet">adds nothing alone</span>
                ) : (
                  <TextButton
                    className="inline-block min-h-6 text-quiet"
                    title="Show only the works that no other seed is tied to"
                    onClick={() => onAlone(s)}
                  >
                    <b className="font-semibold text-ink">{count(s.alone)}</b> from it alone
                  </TextButton>
                )}
              </span>
            )}
            {reseed && of.seedCount > 1 && (
              <Press
                aria-label={`Leave out seed ${s.number}`}
                title="Remove this seed"
                onClick={() => reseed(seedIds.filter((id) => id !== s.workId))}
                className={`h-6 w-6 rounded text-faint opacity-40 group-hover:opacity-100 hover:bg-soft hover:text-ink
                  focus-visible:opacity-100`}
              >
                ×
              </Press>
            )}
          </li>
        ))}
        {of.seedCount > of.seeds.length && (
          <li className="py-2 text-[12.5px] text-quiet">
            and {count(of.seedCount - of.seeds.length)} more, all followed
          </li>
        )}
      </ol>
      {neighbours && neighbours.length > 0 && (
        <div role="group" aria-label="Neighbours" className="shrink-0 border-t border-line px-3.5 py-2">
          <h3 className="text-[13px] font-semibold">
            <TextButton className="font-semibold" onClick={() => onNeighbours(null)} title="All reasons joined ( = )">
              Neighbours
            </TextButton>
          </h3>
          <ul className="text-[12.5px]">
            {neighbours.map((n) => (
              <li key={n.kind} className="flex min-h-[24px] items-center justify-between gap-2">
                <TextButton
                  disabled={n.works === 0}
                  title={`${kindMeaning[n.kind]}: ${works(n.works)}`}
                  onClick={() => onNeighbours(n.kind)}
                >
                  {kindName[n.kind]}
                </TextButton>
                <b className="font-semibold">{count(n.works)}</b>
              </li>
            ))}
          </ul>
        </div>
      )}
      {reseed && kept > 0 && (
        <div className="shrink-0 border-t border-line px-3.5 py-2">
          <TextButton className="text-[12.5px]" onClick={() => reseed(null)}>
            {neighbours ? `Follow all ${count(kept)} kept instead` : `Neighbours of all ${count(kept)} kept instead`}
          </TextButton>
        </div>
      )}
    </section>
  );
}
