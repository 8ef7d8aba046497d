import { forwardRef } from "react";
import type { Dto } from "../../api/client";
import { count, works } from "../../ui/numbers";
import { SortMenu } from "../../set/list/SortMenu";
import { WorkList, type ListHandle } from "../../set/list/WorkList";
import { YearBrush } from "../../set/narrow/YearBrush";
import type { Place, SortOrder, StepAct } from "../../set/useSet";
import { TrailRow } from "./TrailRow";
import { Unmatched } from "./Unmatched";
import { Press } from "../../ui/Press";

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
  onDown: (isDown: boolean) => void;
}

/** One side of a trail: its measure by year and by ties, then its works. */
export const TrailSide = forwardRef<ListHandle, Props>(function TrailSide(
  { way, alone, place, trail, side, state, sort, onSort, selected, onOpen, take, onDown },
  ref,
) {
  const past = way === "Backward";
  const one = trail.seedCount === 1;
  const title = past ? (one ? "What it cites" : "What they cite") : one ? "What cites it" : "What cites them";
  return (
    <div className="flex min-h-0 min-w-0 flex-col">
      <div className="shrink-0 px-[18px] pt-2 pb-1.5 max-sm:px-3">
        <div className="mb-1 flex items-center gap-2 max-[1199px]:gap-1.5">
          <h2
            className={`font-serif text-[16px] font-semibold whitespace-nowrap ${past ? "text-past" : "text-futuretext"}`}
          >
            {title}
          </h2>
          <b className="text-[19px] leading-none font-bold">{count(side.inView)}</b>
          {side.inView !== side.whole && <span className="text-[12px] text-quiet">of {count(side.whole)}</span>}
          <span className="ml-auto" />
          {past && <Unmatched place={place} seeds={trail.seedCount} />}
          <SortMenu sort={sort} onSort={onSort} inTrail />
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
      </div>
      <WorkList
        ref={ref}
        label={title}
        place={place}
        list={{ sort, side: way }}
        total={place.hideJudged ? null : side.inView}
        selected={selected}
        onOpen={onOpen}
        onDown={onDown}
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
              : "No work on this side is within the limits."}
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
    <div role="group" aria-label="Tied to at least" className="mt-1 flex items-end gap-1 overflow-x-auto">
      <span className="pb-1 text-[11.5px] whitespace-nowrap text-quiet sm:max-[1199px]:hidden">tied to</span>
      {levels.map((l) => {
        const seeds = l.atLeast === trail.seedCount ? `all ${count(l.atLeast)}` : `${l.atLeast} or more`;
        return (
          <Press
            key={l.atLeast}
            aria-pressed={l.atLeast === trail.atLeast}
            onClick={() => take({ kind: "Ties", atLeast: l.atLeast })}
            title={`${works(l.works)} tied to ${seeds} of the seeds`}
            className={`min-w-[44px] flex-1 rounded-[4px] px-1 pt-0.5 text-left text-[12px] whitespace-nowrap
              ${l.atLeast === trail.atLeast ? "outline-[1.5px] -outline-offset-1 outline-ink" : "hover:bg-soft"}`}
          >
            <b className="font-bold">{count(l.works)}</b>{" "}
            <span className="text-[11.5px] text-quiet">
              <span aria-hidden="true">{l.atLeast === trail.seedCount ? "all" : `${l.atLeast}+`}</span>
              <span className="sr-only">tied to {seeds}</span>
            </span>
            <span
              aria-hidden="true"
              className={`block h-[4px] rounded-sm ${past ? "bg-past/60" : "bg-future/60"}`}
              style={{ width: `${Math.max(2, (100 * l.works) / most)}%` }}
            />
          </Press>
        );
      })}
    </div>
  );
}
