import type { Dto } from "../../api/client";
import { Marked } from "../../ui/Marked";
import { StageMark } from "../../ui/StageMark";
import { count } from "../../ui/numbers";
import { SeedMark, TieMarks } from "./TieMarks";
import { Press } from "../../ui/Press";

/** One work on a side of a trail: year and stage, title, who and where; at the right the seeds it is tied to and how often it is cited. */
export function TrailRow({
  row,
  side,
  seeds,
  selected,
  onOpen,
}: {
  row: Dto<"WorkRowDto">;
  side: "Backward" | "Forward";
  seeds: number;
  selected: boolean;
  onOpen: () => void;
}) {
  const ties = side === "Backward" ? row.ties?.past : row.ties?.future;
  const numbers = side === "Backward" ? row.ties?.pastSeeds : row.ties?.futureSeeds;
  return (
    <article
      aria-current={selected ? "true" : undefined}
      data-work={row.id}
      onClick={onOpen}
      className={`grid cursor-pointer grid-cols-[36px_minmax(0,1fr)_auto] gap-x-2 border-b border-soft py-2 pr-3 pl-[18px]
        ${selected ? "bg-mist/60 shadow-[inset_3px_0_0_var(--pine)]" : "hover:bg-paper"}`}
    >
      <div className="text-[12.5px] leading-[1.5] text-quiet">
        {row.year ?? "n.d."}
        <span className="mt-1 block">
          <StageMark stage={row.stage} />
        </span>
      </div>
      <div className="min-w-0">
        <h3
          className={`font-serif text-[14.5px] leading-[1.28] font-semibold ${row.stage === "SetAside" ? "text-quiet" : ""}`}
        >
          <Press tabIndex={-1} className="line-clamp-3 text-left" onClick={onOpen}>
            {row.title.text ? <Marked text={row.title} /> : <i className="font-normal">without a title</i>}
          </Press>
        </h3>
        <p className="truncate text-[12.5px] text-quiet">
          {[row.people || "no people named", row.venue].filter(Boolean).join(" · ")}
        </p>
      </div>
      <div className="flex flex-col items-end gap-1">
        <TieMarks numbers={numbers ?? []} ties={ties ?? 0} seeds={seeds} />
        {row.ties?.seed != null && (
          <span className="flex items-center gap-1 text-[11.5px] text-quiet">
            is seed <SeedMark n={row.ties.seed} />
          </span>
        )}
        <span className="text-[11.5px] whitespace-nowrap text-quiet">{count(row.cited)} cited</span>
      </div>
    </article>
  );
}
