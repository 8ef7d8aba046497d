import { forwardRef } from "react";
import type { Dto } from "../../api/client";
import { whyNeighbour } from "../../set/neighbourWords";
import { SortMenu } from "../../set/list/SortMenu";
import { WorkList, type ListHandle } from "../../set/list/WorkList";
import { count } from "../../ui/numbers";
import { TrailRow } from "./TrailRow";
import { Weights } from "./Weights";
import { kinds } from "../../set/neighbourWords";
import type { SideProps } from "./sideProps";

interface Props extends Omit<SideProps, "take" | "state"> {
  round: Dto<"RoundStateDto">;
  neighbours: Dto<"NeighboursDto">;
  total: number;
  /** Works that the person looked at. */
  looked: ReadonlySet<number>;
}

/** The candidates of a round, the likeliest first, each with all its reasons; what was looked at stands back. */
export const RoundSide = forwardRef<ListHandle, Props>(function RoundSide(
  { place, round, neighbours, total, looked, sort, onSort, selected, onOpen, onDown },
  ref,
) {
  return (
    <div className="flex min-h-0 min-w-0 flex-col">
      <div className="flex shrink-0 flex-wrap items-center gap-2 px-[18px] pt-2 pb-1.5 max-sm:px-3">
        <h2 className="font-serif text-[16px] font-semibold whitespace-nowrap">Candidates of round {round.number}</h2>
        <b className="text-[19px] leading-none font-bold">{count(total)}</b>
        {round.known > 0 && <span className="text-[12px] text-quiet">{count(round.known)} known before left out</span>}
        <span className="ml-auto" />
        <Weights reviewId={place.reviewId} of={neighbours} kinds={kinds} isRound />
        <SortMenu sort={sort} onSort={onSort} lead="Nearness" />
      </div>
      <WorkList
        ref={ref}
        label="Candidates"
        place={place}
        list={{ sort, side: null }}
        total={place.hideJudged ? null : total}
        selected={selected}
        onOpen={onOpen}
        onDown={onDown}
        rowHeight={94}
        row={(row) => (
          <TrailRow
            row={row}
            selected={row.id === selected}
            onOpen={() => onOpen(row.id)}
            isSeen={looked.has(row.id)}
            why={[row.ties && tiesSaid(row.ties), row.inCommon && whyNeighbour(row.inCommon)]
              .filter(Boolean)
              .join(" · ")}
          />
        )}
        empty={
          <p className="px-[18px] py-5 text-[13px] text-quiet">
            {total === 0
              ? "These trails lead to nothing that was not looked at before."
              : "No candidate is within the limits."}
          </p>
        }
      />
    </div>
  );
});

/** How a candidate is tied to the seeds, in words. */
function tiesSaid({ past, future }: Dto<"TiesDto">): string {
  return [
    past > 0 ? `cited by ${count(past)} ${past === 1 ? "seed" : "seeds"}` : null,
    future > 0 ? `cites ${count(future)} ${future === 1 ? "seed" : "seeds"}` : null,
  ]
    .filter(Boolean)
    .join(", ");
}
