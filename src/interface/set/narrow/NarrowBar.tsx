import { useState } from "react";
import type { Dto } from "../../api/client";
import { Button } from "../../ui/Button";
import { Sheet } from "../../ui/Sheet";
import { useIsNarrow } from "../../ui/useIsWide";
import { ExportMenu } from "../take/ExportMenu";
import { AsMapOrList } from "../take/AsMapOrList";
import { FollowMenu } from "../take/FollowMenu";
import type { Decide } from "../decide/useDecisions";
import { KeepFirst } from "../decide/KeepFirst";
import { count } from "../../ui/numbers";
import { FittingChips } from "./FittingChips";
import { SortMenu } from "../list/SortMenu";
import { YearBrush } from "./YearBrush";
import type { Place, StepAct, TrailWay } from "../useSet";
import { TextButton } from "../../ui/TextButton";

interface Props {
  place: Place;
  view: Dto<"StepViewDto"> | null;
  take: (act: StepAct) => void;
  decide: Decide;
  /** Which way the trail runs, when the set is one: its list has its own order, its years the colour of that way. */
  trailWay?: TrailWay | null;
}

const colours: Record<TrailWay, string> = {
  Backward: "var(--past)",
  Both: "var(--pine)",
  Forward: "var(--future)",
};

/**
 * Narrowing over the list, in one line: the years as a histogram, as many fields as chips as there is room for; at the
 * right how many works are in view and what to do with all of them. On a narrow screen the fields open as a sheet.
 */
export function NarrowBar(props: Props) {
  const isNarrow = useIsNarrow();
  const [open, setOpen] = useState(false);
  const { place, view, decide, trailWay = null } = props;
  if (!view) return <div className="h-[42px] shrink-0 border-t border-line" aria-busy="true" />;
  const judged = view.kept + view.setAside;
  return (
    <section
      aria-label="Narrow"
      className="flex h-[42px] shrink-0 items-center gap-3 border-t border-line px-[18px] max-sm:gap-2 max-sm:px-3"
    >
      {isNarrow ? (
        <>
          <Button onClick={() => setOpen(true)}>Narrow …</Button>
          <Sheet open={open} onOpenChange={setOpen} title="Narrow the list">
            <div className="flex flex-wrap items-center gap-1.5">
              <Narrowing {...props} view={view} wraps />
            </div>
          </Sheet>
          <span className="flex-1" />
        </>
      ) : (
        <Narrowing {...props} view={view} wraps={false} />
      )}
      <p className="flex shrink-0 items-baseline gap-2.5 text-[12px] text-quiet">
        {judged > 0 && (
          <TextButton
            aria-pressed={place.hideJudged}
            onClick={() => place.change({ judged: place.hideJudged ? null : "hide" })}
            title={`${count(view.kept)} kept and ${count(view.setAside)} set aside are in this set`}
          >
            {place.hideJudged ? `${count(judged)} judged, hidden` : `${count(judged)} judged`}
          </TextButton>
        )}
        <span>
          <b className="text-[16px] font-bold text-ink">{count(view.count)}</b> {view.count === 1 ? "work" : "works"}
        </span>
      </p>
      <div className="flex shrink-0 gap-1.5">
        {trailWay === null && (
          <SortMenu sort={place.sort} onSort={(sort) => place.change({ sort: sort === "Relevance" ? null : sort })} />
        )}
        <span className="flex gap-1.5 max-sm:hidden">
          <FollowMenu place={place} total={view.count} />
          <KeepFirst total={view.count} decide={decide} />
          <AsMapOrList place={place} />
          <ExportMenu place={place} total={view.count} />
        </span>
      </div>
    </section>
  );
}

function Narrowing({
  place,
  view,
  take,
  trailWay = null,
  wraps,
}: Props & { view: Dto<"StepViewDto">; wraps: boolean }) {
  return (
    <>
      <YearBrush
        key={`${view.stepId}`}
        years={view.years}
        from={view.state.from}
        to={view.state.to}
        take={take}
        colour={colours[trailWay ?? "Both"]}
      />
      <FittingChips place={place} state={view.state} take={take} wraps={wraps} />
    </>
  );
}
