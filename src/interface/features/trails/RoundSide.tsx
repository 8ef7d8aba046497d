import { forwardRef } from "react";
import type { Dto } from "../../api/client";
import { SortMenu } from "../../set/list/SortMenu";
import type { ListHandle } from "../../set/list/WorkList";
import { count } from "../../ui/numbers";
import { SideList } from "./SideList";
import { Weights } from "./Weights";
import { kinds, whyNeighbour } from "../../set/neighbourWords";
import type { SideProps } from "./sideProps";

interface Props extends Omit<SideProps, "take" | "state"> {
  round: Dto<"RoundStateDto">;
  neighbours: Dto<"NeighboursDto">;
  total: number;
  /** Whether nothing narrows them. */
  isWhole: boolean;
  /** Works that the person looked at. */
  looked: ReadonlySet<number>;
}

/** The candidates of a round, the likeliest first, each with all its reasons; what was looked at stands back. */
export const RoundSide = forwardRef<ListHandle, Props>(function RoundSide(
  { round, neighbours, total, isWhole, looked, onSort, ...list },
  ref,
) {
  const { place, sort } = list;
  return (
    <div className="flex min-h-0 min-w-0 flex-col">
      <div className="flex shrink-0 flex-wrap items-center gap-2 px-[18px] pt-2 pb-1.5 max-sm:px-3">
        <h2 className="font-serif text-[16px] font-semibold whitespace-nowrap">Candidates of round {round.number}</h2>
        <b className="text-[19px] leading-none font-bold">{count(total)}</b>
        {round.known > 0 && <span className="text-[12px] text-quiet">{count(round.known)} known before left out</span>}
        <span className="ml-auto" />
        <Weights reviewId={place.reviewId} of={neighbours} kinds={kinds} isRound />
        <SortMenu sort={sort} onSort={onSort} lead="Likeness" />
      </div>
      <SideList
        ref={ref}
        {...list}
        label="Candidates"
        total={total}
        isSeen={(row) => looked.has(row.id)}
        why={(row) =>
          [row.ties && tiesSaid(row.ties), row.inCommon && whyNeighbour(row.inCommon)].filter(Boolean).join(" · ")
        }
        empty={
          isWhole ? "Everything these trails lead to has been looked at before." : "No candidate is within the limits."
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
