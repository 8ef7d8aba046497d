import { Link } from "react-router";
import type { Dto } from "../../api/client";
import { HitStrip, type HitField } from "../../ui/HitStrip";
import { Marked } from "../../ui/Marked";
import { Spark } from "../../ui/Spark";
import { Withdrawn } from "../../ui/Withdrawn";
import { StageMark } from "../../ui/StageMark";
import { count } from "../../ui/numbers";
import { Press } from "../../ui/Press";
import { HowToGet } from "../library/Held";
import { PickBox } from "./PickBox";

/**
 * One work in the list: year and stage in the margin, then title, who and where, the best sentence; at the right what
 * it weighs and how its text can be had.
 */
export function WorkRow({
  reviewId,
  row,
  selected,
  onOpen,
  picked,
  onPick,
  onRange,
  onCited,
  onHit,
  dense,
  sense = null,
}: {
  reviewId: number;
  row: Dto<"WorkRowDto">;
  selected: boolean;
  onOpen: () => void;
  picked: boolean;
  onPick: () => void;
  /** Picks everything from the work in view to this one. */
  onRange: () => void;
  /** Follows the forward trail. */
  onCited: () => void;
  /** Goes to where terms stand, in the pane. */
  onHit: (field: HitField) => void;
  /** Only what tells works apart: more of them in sight. */
  dense: boolean;
  /** What the group is called that it belongs to, while groups are looked at. */
  sense?: string | null;
}) {
  const aside = row.stage === "SetAside";
  return (
    <article
      aria-current={selected ? "true" : undefined}
      data-work={row.id}
      className={`group relative grid cursor-pointer grid-cols-[44px_minmax(0,1fr)_150px] gap-2.5 border-b border-soft
        max-sm:grid-cols-[40px_minmax(0,1fr)_auto] max-sm:pr-2.5 max-sm:pl-3
        ${dense ? "py-1" : "py-2"} pr-3.5 pl-[18px]
        ${selected ? "bg-mist/60 shadow-[inset_3px_0_0_var(--pine)]" : "hover:bg-paper"}`}
      onClick={(e) => (e.shiftKey ? onRange() : e.ctrlKey || e.metaKey ? onPick() : onOpen())}
    >
      <div className="text-[12.5px] leading-[1.5] text-quiet">
        {row.year ?? "n.d."}
        <span className={dense ? "ml-1.5 inline-block align-[-2px]" : "mt-1 block"}>
          <StageMark stage={row.stage} />
        </span>
        <PickBox
          title={row.title.text}
          picked={picked}
          onPick={onPick}
          className={`${dense ? "absolute top-1 left-0.5" : "mt-1"} ${
            picked ? "" : "opacity-0 group-hover:opacity-100 focus-visible:opacity-100"
          }`}
        />
      </div>
      <div className="min-w-0">
        <h3 className={`font-serif text-[15px] leading-[1.28] font-semibold ${aside ? "text-quiet" : ""}`}>
          <Press tabIndex={-1} className={`text-left ${dense ? "line-clamp-1" : "line-clamp-3"}`} onClick={onOpen}>
            {row.title.text ? <Marked text={row.title} /> : <i className="font-normal">without a title</i>}
          </Press>
        </h3>
        <p className="truncate text-[12.5px] text-quiet">
          {[row.people || "no people named", row.venue, row.type !== "article" ? row.type : null, row.language]
            .filter(Boolean)
            .join(" · ")}
        </p>
        {aside ? (
          <p className="truncate text-[12.5px] text-aside">set aside: {row.reason}</p>
        ) : (
          !dense &&
          row.snippet &&
          // Where the words stand in the text alone, the sentence of the abstract says nothing of them.
          !(row.inText && row.snippet.marks.length === 0) && (
            <p className="truncate font-serif text-[13px] leading-[1.4] text-ink/85">
              <Marked text={row.snippet} />
            </p>
          )
        )}
        {!aside && !dense && row.inText && (
          <p className="flex gap-1.5 font-serif text-[13px] leading-[1.4] text-ink/85">
            <Link
              to={`/r/${reviewId}/read/${row.inText.textId}?page=${row.inText.page}`}
              tabIndex={-1}
              onClick={(e) => e.stopPropagation()}
              className="shrink-0 font-sans text-[12px] text-quiet underline decoration-line underline-offset-2 hover:decoration-ink"
            >
              in its text, p. {row.inText.page}
            </Link>
            <span className="truncate">
              <Marked text={row.inText.sentence} />
            </span>
          </p>
        )}
        {(row.withdrawn || sense !== null || (!dense && row.tags.length > 0)) && (
          <p className="mt-0.5 flex gap-1.5 overflow-hidden">
            {sense !== null && (
              <span className="text-[11.5px] whitespace-nowrap text-quiet italic" title="The group it is in">
                {sense}
              </span>
            )}
            {row.withdrawn && <Withdrawn />}
            {row.tags.map((t) => (
              <span key={t} className="rounded bg-soft px-1.5 text-[11.5px] whitespace-nowrap text-quiet">
                {t}
              </span>
            ))}
          </p>
        )}
      </div>
      <div className="grid content-start justify-items-end gap-y-1">
        <span className="flex items-end gap-1.5">
          <b
            className="text-[14px] leading-none font-bold"
            title={`cited by ${count(row.cited)} works here, ${row.citedPerYear} a year`}
          >
            {row.cited === 0 ? (
              0
            ) : (
              <Press
                tabIndex={-1}
                aria-label={`${count(row.cited)} works cite it: follow them`}
                onClick={(e) => {
                  e.stopPropagation();
                  onCited();
                }}
                className="hover:underline"
              >
                {count(row.cited)}
              </Press>
            )}
          </b>
          <Spark counts={row.spark} from={row.sparkFrom} />
        </span>
        {!dense && <HitStrip hits={row.hits} onGo={onHit} />}
        <span
          className={`text-right text-[11.5px] text-quiet max-sm:max-w-[90px] ${dense ? "max-w-[150px] truncate" : ""}`}
        >
          <HowToGet reviewId={reviewId} workId={row.id} said={row.text} />
        </span>
      </div>
    </article>
  );
}
