import { forwardRef } from "react";
import type { Dto } from "../../api/client";
import { count } from "../../ui/numbers";
import { SortMenu } from "../search/SortMenu";
import { WorkList, type ListHandle } from "../search/WorkList";
import { YearBrush } from "../search/YearBrush";
import type { Place, SortOrder, StepAct } from "../search/useSearch";
import { TrailRow } from "./TrailRow";
import { Unmatched } from "./Unmatched";

interface Props {
  way: "Backward" | "Forward";
  /** Whether this side is the whole trail. */
  alone: boolean;
  place: Place;
  trail: Dto<"TrailDto">;
  side: Dto<"TrailSideDto">;
  state: Dto<"SearchStateDto">;
  sort: SortOrder;
  onSort: (sort: SortOrder) => void;
  selected: number | null;
  onOpen: (id: number) => void;
  take: (act: StepAct) => void;
}

/** One side of a trail: its measure by year and by ties, then its works. */
export const TrailSide = forwardRef<ListHandle, Props>(function TrailSide(
  { way, alone, place, trail, side, state, sort, onSort, selected, onOpen, take },
  ref,
) {
  const past = way === "Backward";
  const one = trail.seedCount === 1;
  const title = past ? (one ? "What it cites" : "What they cite") : one ? "What cites it" : "What cites them";
  return (
    <div className="flex min-h-0 min-w-0 flex-col">
      <div className="shrink-0 px-[18px] pt-2.5 pb-2">
        <div className="mb-1 flex items-baseline justify-between gap-3">
          <h2 className={`font-serif text-[16px] font-semibold ${past ? "text-past" : "text-futuretext"}`}>{title}</h2>
          {!alone && (
            <button
              type="button"
              className="text-[12px] text-quiet underline decoration-line underline-offset-2 hover:decoration-ink"
              onClick={() => take({ kind: "Way", way })}
              title="A step: only this side, with all its narrowing"
            >
              only this side
            </button>
          )}
          <b className="ml-auto text-[19px] leading-none font-bold">{count(side.inView)}</b>
          {side.inView !== side.whole && <span className="text-[12px] text-quiet">of {count(side.whole)}</span>}
        </div>
        {!alone && (
          <YearBrush
            key={`${place.stepId} ${way}`}
            years={side.years}
            from={state.from}
            to={state.to}
            take={take}
            colour={past ? "var(--past)" : "var(--future)"}
            label={`Years of ${title.toLowerCase()}`}
            full
          />
        )}
        {(side.levels.length > 1 || trail.atLeast > 1) && (
          <Levels levels={side.levels} trail={trail} past={past} take={take} />
        )}
        <div className="mt-1.5 flex items-center gap-1.5">
          {past && <Unmatched place={place} seeds={trail.seedCount} />}
          <span className="ml-auto" />
          <SortMenu sort={sort} onSort={onSort} inTrail />
        </div>
      </div>
      <WorkList
        ref={ref}
        label={title}
        place={place}
        list={{ sort, side: way }}
        total={place.hideJudged ? null : side.inView}
        selected={selected}
        onOpen={onOpen}
        rowHeight={76}
        row={(row) => (
          <TrailRow
            row={row}
            side={way}
            seeds={trail.seedCount}
            selected={row.id === selected}
            onOpen={() => onOpen(row.id)}
          />
        )}
        empty={
          <p className="px-[18px] py-5 text-[13px] text-quiet">
            {side.whole === 0
              ? past
                ? "No reference of the seeds matches a record here."
                : "No record here cites the seeds."
              : "The narrowing leaves nothing on this side."}
          </p>
        }
      />
    </div>
  );
});

/** How many works are tied to one or more, two or more … of the seeds; a press makes the step. */
function Levels({
  levels,
  trail,
  past,
  take,
}: {
  levels: readonly Dto<"TieLevelDto">[];
  trail: Dto<"TrailDto">;
  past: boolean;
  take: (act: StepAct) => void;
}) {
  const most = Math.max(1, ...levels.map((l) => l.works));
  return (
    <div role="group" aria-label="Tied to at least" className="mt-1 space-y-[3px]">
      {levels.map((l) => (
        <button
          key={l.atLeast}
          type="button"
          aria-pressed={l.atLeast === trail.atLeast}
          onClick={() => take({ kind: "Ties", atLeast: l.atLeast })}
          className={`relative flex h-[21px] w-full items-center overflow-hidden rounded-[4px] px-2 text-left text-[12px]
            ${l.atLeast === trail.atLeast ? "outline-[1.5px] -outline-offset-1 outline-ink" : "hover:bg-soft"}`}
        >
          <span
            aria-hidden="true"
            className={`absolute inset-y-0 left-0 ${past ? "bg-past/16" : "bg-future/16"}`}
            style={{ width: `${(100 * l.works) / most}%` }}
          />
          <b className="relative w-11 font-bold">{count(l.works)}</b>
          <span className="relative text-quiet">
            tied to {l.atLeast === trail.seedCount ? `all ${count(l.atLeast)}` : `${l.atLeast} or more`}
          </span>
        </button>
      ))}
    </div>
  );
}
