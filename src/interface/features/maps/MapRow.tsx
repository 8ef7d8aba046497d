import type { Dto } from "../../api/client";
import { Marked } from "../../ui/Marked";
import { Press } from "../../ui/Press";
import { PickBox } from "../../set/list/PickBox";
import { StageMark } from "../../ui/StageMark";
import { count } from "../../ui/numbers";

/** One work beside the map: year and stage, title, who, its links on the map, and what its size says. */
export function MapRow({
  row,
  selected,
  picked,
  cites,
  cited,
  size,
  onOpen,
  onPick,
}: {
  row: Dto<"WorkRowDto">;
  selected: boolean;
  picked: boolean;
  /** How many works on the map it cites. */
  cites: number;
  /** How many works on the map cite it. */
  cited: number;
  /** What its size says; null where it says nothing. */
  size: number | null;
  onOpen: () => void;
  onPick: () => void;
}) {
  return (
    <article
      aria-current={selected ? "true" : undefined}
      data-work={row.id}
      onClick={(e) => (e.shiftKey || e.ctrlKey || e.metaKey ? onPick() : onOpen())}
      className={`grid cursor-pointer grid-cols-[38px_minmax(0,1fr)_auto] gap-x-2 border-b border-soft py-1.5 pr-3 pl-3.5
        ${selected ? "bg-mist/60 shadow-[inset_3px_0_0_var(--pine)]" : "hover:bg-paper"}`}
    >
      <div className="text-[12.5px] leading-[1.5] text-quiet">
        {row.year ?? "n.d."}
        <span className="mt-1 flex items-center gap-1.5">
          <StageMark stage={row.stage} />
          <PickBox title={row.title.text} picked={picked} onPick={onPick} className="" />
        </span>
      </div>
      <div className="min-w-0">
        <h3
          className={`font-serif text-[14px] leading-[1.28] font-semibold ${row.stage === "SetAside" ? "text-quiet" : ""}`}
        >
          <Press tabIndex={-1} className="line-clamp-2 text-left" onClick={onOpen}>
            {row.title.text ? <Marked text={row.title} /> : <i className="font-normal">without a title</i>}
          </Press>
        </h3>
        <p className="truncate text-[12px] text-quiet">
          {row.people || "no people named"} · {count(cites)} back, {count(cited)} forward here
        </p>
      </div>
      {size !== null && <b className="text-[13px] font-bold">{count(size)}</b>}
    </article>
  );
}
