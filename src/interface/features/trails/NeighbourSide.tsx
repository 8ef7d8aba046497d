import { forwardRef } from "react";
import type { Dto } from "../../api/client";
import { SortMenu } from "../../set/list/SortMenu";
import type { ListHandle } from "../../set/list/WorkList";
import type { StepAct } from "../../set/useSet";
import { barButton } from "../../ui/Button";
import { Press } from "../../ui/Press";
import { count, works } from "../../ui/numbers";
import { Stair } from "./Stair";
import { SideList } from "./SideList";
import type { SideProps } from "./sideProps";
import { Weights } from "./Weights";
import { kindMeaning, kindName, whyNeighbour } from "../../set/neighbourWords";

interface Props extends SideProps {
  neighbours: Dto<"NeighboursDto">;
  asked: Dto<"NeighboursAskedDto">;
}

/** The neighbours of the seeds: by which reasons, with how much in common, then the works, each with its reasons in numbers. */
export const NeighbourSide = forwardRef<ListHandle, Props>(function NeighbourSide(
  { neighbours, asked, state, onSort, take, ...list },
  ref,
) {
  const { place, sort } = list;
  const on = neighbours.counts.filter((c) => c.chosen).map((c) => c.kind);
  return (
    <div className="flex min-h-0 min-w-0 flex-col">
      <div className="shrink-0 px-[18px] pt-2 pb-1.5 max-sm:px-3">
        <div className="mb-1 flex flex-wrap items-center gap-x-2 gap-y-1">
          <h2 className="font-serif text-[16px] font-semibold whitespace-nowrap">
            {neighbours.seedCount === 1 ? "Its neighbours" : "Their neighbours"}
          </h2>
          <b className="text-[19px] leading-none font-bold">{count(asked.inView)}</b>
          {asked.inView !== asked.whole && <span className="text-[12px] text-quiet">of {count(asked.whole)}</span>}
          <span className="ml-auto" />
          <Limits asked={asked} state={state} take={take} />
          <Weights reviewId={place.reviewId} of={neighbours} kinds={on} />
          <SortMenu sort={sort} onSort={onSort} lead="Likeness" />
        </div>
        <div className="flex flex-wrap items-end gap-x-4 gap-y-1">
          <Kinds counts={neighbours.counts} take={take} />
          {(asked.levels.length > 1 || asked.atLeast > 1) && (
            <div className="min-w-[230px] flex-1">
              <Stair
                label="In common at least"
                lead="in common"
                levels={asked.levels}
                atLeast={asked.atLeast}
                said={(n) => `${n} or more in common`}
                take={(atLeast) => take({ kind: "Shared", atLeast })}
                colour="bg-pine/50"
              />
            </div>
          )}
        </div>
      </div>
      <SideList
        ref={ref}
        {...list}
        label="Neighbours"
        total={asked.inView}
        why={(row) => row.inCommon && whyNeighbour(row.inCommon)}
        empty={
          asked.whole > 0
            ? "No neighbour is within the limits."
            : "No work here has anything of this in common with the seeds. A seed without references, citations and " +
              "abstract has few neighbours: try its people, or search for words of its title."
        }
      />
    </div>
  );
});

/** The reasons, each with how many works it alone brings; a press takes one in or out. */
function Kinds({ counts, take }: { counts: readonly Dto<"KindCountDto">[]; take: (act: StepAct) => void }) {
  const on = counts.filter((c) => c.chosen).map((c) => c.kind);
  return (
    <div role="group" aria-label="What they have in common" className="flex flex-wrap gap-1.5">
      {counts.map((c) => (
        <Press
          key={c.kind}
          aria-pressed={c.chosen}
          disabled={c.chosen && on.length === 1}
          title={`${kindMeaning[c.kind]}: ${works(c.works)} by this reason alone`}
          onClick={() => take({ kind: "Kinds", kinds: c.chosen ? on.filter((k) => k !== c.kind) : [...on, c.kind] })}
          className={`h-[26px] rounded-md border px-2 text-[12.5px] whitespace-nowrap
            ${c.chosen ? "border-pine bg-mist text-ink" : "border-edge/70 bg-raised text-quiet hover:border-ink"}`}
        >
          {kindName[c.kind]} <b className="font-bold">{count(c.works)}</b>
        </Press>
      ))}
    </div>
  );
}

/** The limits that neighbours are most often asked for, one press each; they are taken back in the line of limits above. */
function Limits({
  asked,
  state,
  take,
}: {
  asked: Dto<"NeighboursAskedDto">;
  state: Dto<"SearchStateDto">;
  take: (act: StepAct) => void;
}) {
  const { newerThan, type, notJudged, inView } = asked;
  const narrowed = (facet: "Type" | "Stage") => state.narrowings.some((n) => n.facet === facet);
  return (
    <>
      {newerThan !== null && (state.from === null || state.from <= newerThan) && (
        <Press className={barButton} onClick={() => take({ kind: "Years", from: newerThan + 1, to: state.to })}>
          newer than {newerThan}
        </Press>
      )}
      {type !== null && !narrowed("Type") && (
        <Press
          className={barButton}
          onClick={() => take({ kind: "Narrow", facet: "Type", values: [type], excluded: [] })}
        >
          same type: {type}
        </Press>
      )}
      {notJudged > 0 && notJudged < inView && !narrowed("Stage") && (
        <Press
          className={barButton}
          onClick={() => take({ kind: "Narrow", facet: "Stage", values: ["found"], excluded: [] })}
        >
          not judged <b className="font-semibold text-ink">{count(notJudged)}</b>
        </Press>
      )}
    </>
  );
}
