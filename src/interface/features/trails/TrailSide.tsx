import { forwardRef } from "react";
import type { Dto } from "../../api/client";
import { Marked } from "../../ui/Marked";
import { count } from "../../ui/numbers";
import { SortMenu } from "../../set/list/SortMenu";
import type { ListHandle } from "../../set/list/WorkList";
import { YearBrush } from "../../set/narrow/YearBrush";
import { useSaidOfSeeds } from "../../set/useSaid";
import { SideList } from "./SideList";
import type { SideProps } from "./sideProps";
import { Unmatched } from "./Unmatched";
import { Stair } from "./Stair";
import { WhereItCites } from "./WhereItCites";
import { SeedMark, TieMarks } from "./TieMarks";

interface Props extends SideProps {
  way: "Backward" | "Forward";
  /** Whether this side is the whole trail. */
  alone: boolean;
  trail: Dto<"TrailDto">;
  side: Dto<"TrailSideDto">;
}

/** One side of a trail: its measure by year and by ties, then its works. */
export const TrailSide = forwardRef<ListHandle, Props>(function TrailSide(
  { way, alone, trail, side, state, onSort, take, ...list },
  ref,
) {
  const { place, sort } = list;
  const past = way === "Backward";
  const one = trail.seedCount === 1;
  const said = useSaidOfSeeds(place.reviewId, place.stepId, !past).data;
  const says = new Map(said?.texts.map((t) => [t.workId, t]));
  const title = past ? (one ? "What it cites" : "What they cite") : one ? "What cites it" : "What cites them";
  return (
    <div className="flex min-h-0 min-w-0 flex-col">
      <div className="shrink-0 px-[18px] pt-1 pb-1 max-sm:px-3">
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
          {!past && ((said?.asked ?? 0) > 0 || state.whereItCites !== "") && (
            <WhereItCites
              key={state.whereItCites}
              words={state.whereItCites}
              asked={said?.asked ?? 0}
              of={side.whole}
              take={take}
            />
          )}
          <SortMenu sort={sort} onSort={onSort} lead="Ties" />
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
          <Stair
            label="Tied to at least"
            lead="tied to"
            levels={side.levels}
            atLeast={trail.atLeast}
            all={one ? null : trail.seedCount}
            said={(n) => `tied to ${n === trail.seedCount ? `all ${count(n)}` : `${n} or more`} of the seeds`}
            take={(atLeast) => take({ kind: "Ties", atLeast })}
            colour={past ? "bg-past/60" : "bg-future/60"}
          />
        )}
      </div>
      <SideList
        ref={ref}
        {...list}
        label={title}
        way={way}
        total={side.inView}
        rowHeight={76}
        ties={(row) => <Ties of={row} past={past} seeds={trail.seedCount} />}
        says={(row) => <Says text={says.get(row.id)} />}
        empty={
          side.whole > 0
            ? "No work on this side is within the limits."
            : past
              ? "No reference of the seeds matches a record here. Where records have none, the gathered texts of the seeds " +
                "give theirs; neighbours by terms and by people need none."
              : "No record here cites the seeds."
        }
      />
    </div>
  );
});

/** The first sentence in which the text of a work cites a seed; all of them stand in the pane. */
function Says({ text }: { text: Dto<"SaidTextDto"> | undefined }) {
  const first = text?.sentences[0];
  if (!first) return null;
  return (
    <p className="line-clamp-3 font-serif text-[13px] leading-[1.4] text-ink/85">
      <span className="font-sans text-[11.5px] text-quiet">p. {first.page}</span> <Marked text={first.text} />
    </p>
  );
}

/** The seeds that a work is tied to on this side, and whether it is a seed itself. */
function Ties({ of, past, seeds }: { of: Dto<"WorkRowDto">; past: boolean; seeds: number }) {
  if (!of.ties) return null;
  const { ties } = of;
  return (
    <>
      <TieMarks
        numbers={past ? ties.pastSeeds : ties.futureSeeds}
        ties={past ? ties.past : ties.future}
        seeds={seeds}
      />
      {ties.seed !== null && (
        <span className="flex items-center gap-1 text-[11.5px] text-quiet">
          is seed <SeedMark n={ties.seed} />
        </span>
      )}
    </>
  );
}
