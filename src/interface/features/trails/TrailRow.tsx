import type { ReactNode } from "react";
import type { Dto } from "../../api/client";
import { Marked } from "../../ui/Marked";
import { StageMark } from "../../ui/StageMark";
import { count } from "../../ui/numbers";
import { Press } from "../../ui/Press";

/** One work beside seeds: year and stage, title, who and where; at the right what ties it and how often it is cited. */
export function TrailRow({
  row,
  selected,
  onOpen,
  why = null,
  ties = null,
  says = null,
  isSeen = false,
}: {
  row: Dto<"WorkRowDto">;
  selected: boolean;
  onOpen: () => void;
  /** Why it is here, where its ties do not say so. */
  why?: string | null;
  /** Marks of the seeds it is tied to. */
  ties?: ReactNode;
  /** What its text says of a seed. */
  says?: ReactNode;
  /** Whether the person looked at it in this round. */
  isSeen?: boolean;
}) {
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
        {isSeen && row.stage === "Found" && <span className="block text-[11.5px] text-faint">seen</span>}
      </div>
      <div className="min-w-0">
        <h3
          className={`font-serif text-[14.5px] leading-[1.28] font-semibold ${row.stage === "SetAside" || isSeen ? "text-quiet" : ""}`}
        >
          <Press tabIndex={-1} className="line-clamp-3 text-left" onClick={onOpen}>
            {row.title.text ? <Marked text={row.title} /> : <i className="font-normal">without a title</i>}
          </Press>
        </h3>
        <p className="truncate text-[12.5px] text-quiet">
          {[row.people || "no people named", row.venue].filter(Boolean).join(" · ")}
        </p>
        {why && <p className="text-[12.5px] text-ink/85">{why}</p>}
        {says}
      </div>
      <div className="flex flex-col items-end gap-1">
        {ties}
        <span className="text-[11.5px] whitespace-nowrap text-quiet">{count(row.cited)} cited</span>
      </div>
    </article>
  );
}
