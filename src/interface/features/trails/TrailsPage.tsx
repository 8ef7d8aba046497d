import { useRef, useState } from "react";
import { Navigate } from "react-router";
import { useKeys } from "../../ui/keys";
import type { Dto } from "../../api/client";
import { Button } from "../../ui/Button";
import { Fault } from "../../ui/Fault";
import { useIsNarrow } from "../../ui/useIsWide";
import { DecisionSheets } from "../../set/decide/DecisionSheets";
import { KeepFirst } from "../../set/decide/KeepFirst";
import { ExportMenu } from "../../set/take/ExportMenu";
import { FollowMenu } from "../../set/take/FollowMenu";
import { useReview } from "../../review/useReviews";
import { FittingChips } from "../../set/narrow/FittingChips";
import { NarrowBar } from "../../set/narrow/NarrowBar";
import { PathStair } from "../../set/path/PathStair";
import type { ListHandle } from "../../set/list/WorkList";
import { usePath, usePlace, useStepView, useTakeStep, useVisit, type SortOrder, type StepAct } from "../../set/useSet";
import { WorkPane } from "../../set/work/WorkPane";
import { useAsk } from "../../set/useAsk";
import { useWorkInView } from "../../set/list/useWorkInView";
import { CountsBy } from "./CountsBy";
import { Seeds } from "./Seeds";
import { StartTrails } from "./StartTrails";
import { RoundSide } from "./RoundSide";
import { RoundsStrip } from "./RoundsStrip";
import { useLooked } from "../../set/useRounds";
import { TrailSide } from "./TrailSide";
import { Evidence } from "./Evidence";
import { NeighbourSide } from "./NeighbourSide";
import { useNeighbours, useTrail, type Followed, type SeedOrder } from "../../set/useTrail";
import { Press } from "../../ui/Press";

/** The columns of the page: both sides of the trail with a work or the tie chart between them, or one side. */
const columns = {
  withWork: "grid-cols-[minmax(0,1fr)_minmax(360px,420px)_minmax(0,1fr)]",
  both: "grid-cols-[minmax(0,1fr)_290px_minmax(0,1fr)] max-[1100px]:grid-cols-[minmax(0,1fr)_230px_minmax(0,1fr)]",
  one: "grid-cols-[minmax(0,1fr)_440px] border-t border-line max-[1150px]:grid-cols-[minmax(0,1fr)_370px]",
};

/** A list of the page. */
type Side = "Backward" | "Forward" | "Neighbours" | "Candidates";

/**
 * Trails: past on the left, seeds in the middle, future on the right; the pane of a work takes the seeds' place. The
 * neighbours of the seeds are a list of their own.
 */
export function TrailsPage({ reviewId }: { reviewId: number }) {
  const review = useReview(reviewId).data;
  const place = usePlace(reviewId, review?.trailStepId ?? null);
  const { stepId, workId, change } = place;
  const path = usePath(reviewId, stepId);
  const view = useStepView(reviewId, stepId);
  const current = view.data?.stepId === stepId;
  // While a step is on its way, the one before it stays in view.
  const state = view.data?.state;
  const hasSeeds = state !== undefined && (state.trail ?? state.neighbours ?? state.round) !== null;
  const [seedOrder, setSeedOrder] = useState<SeedOrder>("Given");
  const trail = useTrail(reviewId, stepId, seedOrder, current && state?.trail != null);
  const neighbours = useNeighbours(reviewId, stepId, current && hasSeeds);
  const looked = useLooked(reviewId, stepId, workId, current && state?.round != null);
  const take = useTakeStep(place);
  const [sorts, setSorts] = useState<Record<Side, SortOrder>>({
    Backward: "Ties",
    Forward: "Ties",
    Neighbours: "Likeness",
    Candidates: "Likeness",
  });
  const lists = {
    Backward: useRef<ListHandle>(null),
    Forward: useRef<ListHandle>(null),
    Neighbours: useRef<ListHandle>(null),
    Candidates: useRef<ListHandle>(null),
  };
  const [side, setSide] = useState<Side>("Backward");
  useVisit(reviewId, stepId);
  const isNarrow = useIsNarrow();
  const [narrowSide, setNarrowSide] = useState<"Backward" | "Seeds" | "Forward">("Backward");

  const active = () =>
    [side, "Backward" as const, "Forward" as const, "Neighbours" as const, "Candidates" as const]
      .map((s) => lists[s].current)
      .find((list) => list !== null) ?? null;
  const inView = useWorkInView(place, active, useAsk(take, view.data?.state));
  const [isDown, setIsDown] = useState(false);
  const { decide, follow, openWork } = inView;
  const toSide = (to: "Backward" | "Forward") => () => {
    if (!lists[to].current) return false;
    setSide(to);
    return lists[to].current.move(0);
  };
  useKeys({
    ArrowLeft: toSide("Backward"),
    ArrowRight: toSide("Forward"),
    Escape: () => {
      if (workId === null) return false;
      openWork(null);
      return true;
    },
  });

  if (view.error)
    return (
      <div className="p-8">
        <Fault error={view.error} again={() => change({ step: "0", work: null })} />
      </div>
    );
  if (stepId === 0)
    return (
      <>
        <RoundsStrip place={place} />
        <StartTrails reviewId={reviewId} kept={review?.kept ?? 0} follow={follow} />
      </>
    );
  if (current && !hasSeeds) return <Navigate to={`/r/${reviewId}/search?step=${stepId}`} replace />;

  const data = state?.trail ? trail.data : undefined;
  const near = state?.neighbours && neighbours.data?.asked ? neighbours.data : undefined;
  const round = state?.round ? neighbours.data : undefined;
  const seeds = data ?? near ?? round;
  const both = data?.way === "Both";
  const beside = (list: Side) => ({
    place,
    sort: sorts[list],
    onSort: (sort: SortOrder) => setSorts((s) => ({ ...s, [list]: sort })),
    selected: workId,
    onOpen: (id: number) => {
      setSide(list);
      openWork(id);
    },
    take: (act: StepAct) => take.mutate({ act }),
    onDown: setIsDown,
  });
  const seen = (way: "Backward" | "Forward") => !isNarrow || (workId === null && (!both || narrowSide === way));
  const sideOf = (way: "Backward" | "Forward", measures: Dto<"TrailSideDto"> | null | undefined) =>
    data &&
    state &&
    measures &&
    seen(way) && (
      <TrailSide
        key={way}
        ref={lists[way]}
        way={way}
        alone={!both}
        trail={data}
        side={measures}
        state={state}
        {...beside(way)}
      />
    );
  const middle =
    isNarrow && workId === null && (!both || narrowSide !== "Seeds") ? null : workId ? (
      <div className="flex min-h-0 flex-col border-x border-line">
        <Press
          className="shrink-0 border-b border-line px-[18px] py-1 text-left text-[12.5px] text-quiet hover:text-ink"
          onClick={() => openWork(null)}
        >
          ‹ back to the {seeds?.seedCount === 1 ? "seed" : "seeds"} (Esc)
        </Press>
        <div className="flex min-h-0 flex-1 flex-col [&>aside]:flex-1 [&>aside]:border-l-0">
          <WorkPane
            ref={inView.paneRef}
            {...inView.pane}
            lead={
              (near ?? round) &&
              seeds && (
                <Evidence
                  key={workId}
                  reviewId={reviewId}
                  stepId={stepId}
                  workId={workId}
                  seeds={seeds.seedCount}
                  onOpen={openWork}
                  onSearch={(expression) => take.mutate({ act: { kind: "Search", expression }, from: 0 })}
                />
              )
            }
          />
        </div>
      </div>
    ) : (
      seeds && (
        <Seeds
          of={seeds}
          neighbours={near ? null : (neighbours.data?.counts ?? [])}
          kept={review?.kept ?? 0}
          onOpen={openWork}
          // A round has the seeds that it has; the next one has others.
          reseed={round ? null : (ids) => follow(ids, data?.way ?? "Neighbours")}
          seedIds={seeds.seedIds}
          order={data ? [seedOrder, setSeedOrder] : null}
          onAlone={(seed) =>
            data &&
            state &&
            take.mutate({
              act: {
                kind: "Compare",
                other: [
                  { kind: "Trail", seeds: data.seedIds.filter((id) => id !== seed.workId), way: data.way },
                  ...(state.databases.length > 0 ? [{ kind: "Databases" as const, databases: state.databases }] : []),
                ],
                apart: true,
                said: `only from seed ${seed.number}`,
              },
            })
          }
          onNeighbours={(kind) => follow(seeds.seedIds, "Neighbours", { kind })}
        />
      )
    );
  return (
    <>
      {review && (
        <PathStair place={place} path={path.data ?? null} band={[review.bandLow, review.bandHigh]} isThin={isDown} />
      )}
      {(both || isNarrow || !seeds) && <RoundsStrip place={place} />}
      {!seeds || !view.data || !state ? (
        <div className="p-8" aria-busy="true">
          <div className="shape h-40 w-full" />
        </div>
      ) : (
        <>
          <div
            className={`flex shrink-0 items-center gap-2 overflow-x-auto border-b border-line px-[18px] py-1.5
              text-[12.5px] max-sm:flex-wrap max-sm:px-3`}
          >
            <Ways
              way={round ? "Candidates" : (data?.way ?? "Neighbours")}
              one={seeds.seedCount === 1}
              go={(way) =>
                data && way !== "Neighbours" ? take.mutate({ act: { kind: "Way", way } }) : follow(seeds.seedIds, way)
              }
            />
            {both && !isNarrow ? (
              <FittingChips place={place} state={state} take={(act) => take.mutate({ act })} />
            ) : (
              <>
                {!isNarrow && <RoundsStrip place={place} isInLine />}
                {isNarrow && <span className="flex-1" />}
              </>
            )}
            {!(isNarrow && both) && <CountsBy view={view.data} take={(act) => take.mutate({ act })} />}
            {both && !isNarrow && (
              <>
                <FollowMenu place={place} total={view.data.count} />
                <KeepFirst total={view.data.count} decide={decide} />
                <ExportMenu place={place} total={view.data.count} />
              </>
            )}
          </div>
          {(!both || isNarrow) && (
            <NarrowBar
              place={place}
              view={view.data}
              take={(act) => take.mutate({ act })}
              decide={decide}
              trailWay={data?.way ?? "Both"}
            />
          )}
          {isNarrow && both && workId === null && (
            <div
              role="group"
              aria-label="Side"
              className="flex shrink-0 items-center gap-1.5 border-b border-line px-3 py-1.5"
            >
              {(["Backward", "Seeds", "Forward"] as const).map((s) => (
                <Button key={s} kind={s === narrowSide ? "primary" : undefined} onClick={() => setNarrowSide(s)}>
                  {s === "Backward" ? "Past" : s === "Forward" ? "Future" : "Seeds"}
                </Button>
              ))}
              <span className="flex-1" />
              <CountsBy view={view.data} take={(act) => take.mutate({ act })} />
            </div>
          )}
          <div
            className={`grid min-h-0 flex-1 max-sm:!grid-cols-[minmax(0,1fr)]
              ${both ? (workId ? columns.withWork : columns.both) : columns.one}`}
          >
            {round && state.round ? (
              <>
                {(!isNarrow || workId === null) && (
                  <RoundSide
                    ref={lists.Candidates}
                    round={state.round}
                    neighbours={round}
                    total={view.data.count}
                    isWhole={view.data.count === view.data.before}
                    looked={looked}
                    {...beside("Candidates")}
                  />
                )}
                {middle}
              </>
            ) : near?.asked ? (
              <>
                {(!isNarrow || workId === null) && (
                  <NeighbourSide
                    ref={lists.Neighbours}
                    neighbours={near}
                    asked={near.asked}
                    state={state}
                    {...beside("Neighbours")}
                  />
                )}
                {middle}
              </>
            ) : data?.way === "Forward" ? (
              <>
                {sideOf("Forward", data.future)}
                {middle}
              </>
            ) : (
              <>
                {sideOf("Backward", data?.past)}
                {middle}
                {both && sideOf("Forward", data.future)}
              </>
            )}
          </div>
        </>
      )}
      <DecisionSheets {...inView.sheets} />
    </>
  );
}

/** Which way the trail runs, or that neighbours are asked for; the others are one press away. */
function Ways({ way, one, go }: { way: string; one: boolean; go: (way: Followed) => void }) {
  const words = [
    ["Backward", one ? "◂ what it cites" : "◂ what they cite", "text-past"],
    ["Both", "both ways", "text-ink"],
    ["Forward", one ? "what cites it ▸" : "what cites them ▸", "text-futuretext"],
    ["Neighbours", "neighbours", "text-ink"],
  ] as const;
  return (
    <div role="group" aria-label="Which way" className="flex shrink-0 items-center gap-1 whitespace-nowrap">
      {words.map(([w, label, colour]) => (
        <Press
          key={w}
          aria-pressed={w === way}
          onClick={() => w !== way && go(w)}
          className={`rounded px-1.5 py-0.5 ${w === way ? `font-semibold ${colour} bg-soft` : "text-quiet hover:bg-soft"}`}
        >
          {label}
        </Press>
      ))}
    </div>
  );
}
