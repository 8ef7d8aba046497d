import type { Dto } from "../../api/client";
import { ExportMenu } from "../export/ExportMenu";
import type { Decide } from "../decisions/useDecisions";
import { KeepFirst } from "../decisions/KeepFirst";
import { count } from "../../ui/numbers";
import { FacetChips } from "./FacetChips";
import { InsideChip } from "./InsideChip";
import { SortMenu } from "./SortMenu";
import { YearBrush } from "./YearBrush";
import type { Place, StepAct, TrailWay } from "./useSearch";

/**
 * Narrowing over the list: the years as a histogram, the fields as chips; at the right how many works are in view and
 * what to do with all of them.
 */
export function NarrowBar({
  place,
  view,
  take,
  decide,
  trailWay = null,
}: {
  place: Place;
  view: Dto<"StepViewDto"> | null;
  take: (act: StepAct) => void;
  decide: Decide;
  /** Which way the trail runs, when the set is one: its list has its own order, its years the colour of that way. */
  trailWay?: TrailWay | null;
}) {
  if (!view) return <div className="h-[76px] shrink-0 border-t border-line" aria-busy="true" />;
  const judged = view.kept + view.setAside;
  return (
    <section aria-label="Narrow" className="flex shrink-0 items-end gap-4 border-t border-line px-[18px] py-1.5">
      <YearBrush
        key={`${view.stepId}`}
        years={view.years}
        from={view.state.from}
        to={view.state.to}
        take={take}
        colour={trailWay === null ? "var(--pine)" : trailWay === "Backward" ? "var(--past)" : "var(--future)"}
      />
      <div className="flex min-w-0 flex-1 flex-wrap gap-1.5 pb-1">
        <FacetChips often={8} place={place} narrowings={view.state.narrowings} take={take} />
        <InsideChip inside={view.state.inside} take={take} />
      </div>
      <div className="flex shrink-0 flex-col items-end gap-1.5 pb-1">
        <p className="flex items-baseline gap-2 text-[12px] text-quiet">
          {judged > 0 && (
            <button
              type="button"
              aria-pressed={place.hideJudged}
              onClick={() => place.change({ judged: place.hideJudged ? null : "hide" })}
              className="underline decoration-line underline-offset-2 hover:decoration-ink"
              title={`${count(view.kept)} kept and ${count(view.setAside)} set aside are in this set`}
            >
              {place.hideJudged ? `${count(judged)} judged, hidden` : `${count(judged)} judged`}
            </button>
          )}
          <span>
            <b className="text-[16px] font-bold text-ink">{count(view.count)}</b> {view.count === 1 ? "work" : "works"}
          </span>
        </p>
        <div className="flex gap-1.5">
          {trailWay === null && (
            <SortMenu sort={place.sort} onSort={(sort) => place.change({ sort: sort === "Relevance" ? null : sort })} />
          )}
          <KeepFirst total={view.count} decide={decide} />
          <ExportMenu place={place} total={view.count} />
        </div>
      </div>
    </section>
  );
}
