import { useCallback, useMemo, useRef, useState } from "react";
import type { Dto } from "../../api/client";
import { useReview } from "../../review/useReviews";
import { DecisionSheets } from "../../set/decide/DecisionSheets";
import { PickedBar } from "../../set/list/PickedBar";
import type { ListHandle } from "../../set/list/WorkList";
import { usePicked } from "../../set/list/usePicked";
import { useWorkInView } from "../../set/list/useWorkInView";
import { NarrowBar } from "../../set/narrow/NarrowBar";
import { PathStair } from "../../set/path/PathStair";
import { useAsk } from "../../set/useAsk";
import { usePath, usePaths, usePlace, useStepView, useTakeStep, useVisit, type Place } from "../../set/useSet";
import { Fault } from "../../ui/Fault";
import { useKeys } from "../../ui/keys";
import { useLateSize } from "./useLateSize";
import { arrange } from "./arrange";
import { citedBy, pathBetween } from "./links";
import { MapBar } from "./MapBar";
import { MapBeside } from "./MapBeside";
import { MapLegend } from "./MapLegend";
import { MapPicture, gutter } from "./MapPicture";
import { MapTable } from "./MapTable";
import { useChoice } from "./useChoice";
import { useExports } from "./useExports";
import { useLaneLooks } from "./useLaneLooks";
import { StartMap } from "./StartMap";
import { YearThrough } from "./YearThrough";
import { useMap } from "./useMap";
import { sizeSaid, withoutWords } from "./words";

const none: readonly number[] = [];
const noPaths: readonly { id: number; label: string }[] = [];
/** So many of the newest paths can be held against the map. */
const mostOthers = 12;

/** Map: a set in lanes through time, or the choice of one. */
export function MapPage({ reviewId }: { reviewId: number }) {
  const review = useReview(reviewId).data;
  const place = usePlace(reviewId, null);
  if (!review) return null;
  return place.stepId === 0 ? <StartMap review={review} /> : <SetOnMap review={review} place={place} />;
}

/** The set in view as a map; the list beside it is the same set. */
function SetOnMap({ review, place }: { review: Dto<"ReviewDto">; place: Place }) {
  const reviewId = review.id;
  const { stepId, workId, change } = place;
  const path = usePath(reviewId, stepId);
  const view = useStepView(reviewId, stepId);
  const current = view.data?.stepId === stepId;
  const paths = usePaths(reviewId, true).data ?? noPaths;
  const others = paths.filter((p) => p.id !== stepId).slice(0, mostOthers);
  const take = useTakeStep(place);
  useVisit(reviewId, stepId);
  const [choice, setChoice] = useChoice();
  const [zoom, setZoom] = useState(1);
  const lanes = useLaneLooks();
  const [until, setUntil] = useState<number | null>(null);
  const [isTable, setTable] = useState(false);
  const [hasLine, setLine] = useState(false);
  const [hasFlows, setFlows] = useState(false);
  const room = useRef<HTMLDivElement>(null);
  const size = useLateSize(room, 120);
  const frame = useMemo(
    () =>
      size ? { width: Math.max(320, size.width - gutter - 16) * zoom, height: Math.max(200, size.height - 60) } : null,
    [size, zoom],
  );
  const map = useMap(reviewId, stepId, choice, frame, current);
  const data = map.data;

  const nameOf = useCallback(
    (lane: { kind: string; label: string; values: number }) =>
      lane.kind === "Value"
        ? lane.label
        : lane.kind === "Others"
          ? `${lane.values} smaller lanes`
          : withoutWords[choice.lanes],
    [choice.lanes],
  );
  const picture = useMemo(
    () => (data ? arrange(data, lanes.looks, lanes.names, nameOf, until) : null),
    [data, lanes.looks, lanes.names, nameOf, until],
  );
  const by = useMemo(() => citedBy(data?.works ?? []), [data]);
  const ordinals = useMemo(() => new Map(data?.works.map((w, i) => [w.id, i])), [data]);
  const picked = usePicked(stepId);
  const pickedHere = useMemo(() => new Set(picked.ids.flatMap((id) => ordinals.get(id) ?? [])), [picked.ids, ordinals]);

  const list = useRef<ListHandle>(null);
  // While the keys are at the map, they act on the work they are at.
  const at = useRef<number | null>(null);
  const onAt = useCallback(
    (of: number | null) => {
      at.current = of === null ? null : (data?.works[of]?.id ?? null);
    },
    [data],
  );
  const handle = (): ListHandle | null =>
    at.current === null || list.current === null ? list.current : { ...list.current, current: () => at.current };
  const inView = useWorkInView(place, handle, useAsk(take, view.data?.state));
  const { decide, follow, openWork } = inView;
  useKeys({
    " ": inView.onWork((id) => picked.flip(id)),
    Escape: () => {
      if (workId === null) return false;
      openWork(null);
      return true;
    },
  });

  const exports = useExports({
    reviewId,
    stepId,
    choice,
    frame,
    map: data,
    picture,
    title: `${review.title}: ${path.data?.steps.find((s) => s.id === stepId)?.label ?? "works"}`,
  });

  if (view.error)
    return (
      <div className="p-8">
        <Fault error={view.error} again={() => change({ step: null, work: null })} />
      </div>
    );

  const total = view.data?.count ?? 0;
  // Two picked works are joined by the way between them.
  const [from, to] = [...pickedHere];
  const way =
    data && pickedHere.size === 2 && from !== undefined && to !== undefined
      ? pathBetween(data.works, by, from, to)
      : null;
  const line = hasLine ? (data?.mainLine ?? none) : (way ?? none);
  const range = yearsOf(data?.works ?? []);
  return (
    <>
      <PathStair place={place} path={path.data ?? null} band={[review.bandLow, review.bandHigh]} isThin />
      <NarrowBar place={place} view={view.data ?? null} take={(act) => take.mutate({ act })} decide={decide} />
      <MapBar
        choice={choice}
        onChoice={(c) => {
          setChoice(c);
          if (c.lanes !== undefined) lanes.reset();
        }}
        databases={view.data?.ledger.databases ?? []}
        others={others}
        hasSeeds={data?.seeds ?? false}
        hasHidden={lanes.isChanged}
        onShowAll={lanes.reset}
        line={hasLine}
        onLine={() => setLine(!hasLine)}
        flows={hasFlows}
        onFlows={() => setFlows(!hasFlows)}
        zoom={zoom}
        onZoom={setZoom}
        isTable={isTable}
        onTable={() => setTable(!isTable)}
        exports={exports}
      />
      {picked.ids.length > 0 && (
        <PickedBar
          reviewId={reviewId}
          picked={picked}
          decide={decide}
          follow={follow}
          onOnly={() => take.mutate({ act: { kind: "Among", works: [...picked.ids], said: "picked on the map" } })}
        />
      )}
      <div
        className={`grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_370px] max-[1150px]:grid-cols-[minmax(0,1fr)_300px]
          max-sm:grid-cols-[minmax(0,1fr)] ${workId === null ? "max-sm:[&>.beside]:hidden" : "max-sm:[&>.map]:hidden"}`}
      >
        <div ref={room} className="map flex min-h-0 min-w-0 flex-col">
          {data && <MapLegend map={data} choice={choice} onOpen={() => setChoice({ open: !choice.open })} />}
          {map.error ? (
            <div className="p-6">
              <Fault error={map.error} again={() => void map.refetch()} />
            </div>
          ) : data && picture ? (
            data.works.length === 0 ? (
              <p className="px-[18px] py-5 text-quiet">No work is in view, so there is nothing to draw.</p>
            ) : isTable ? (
              <MapTable
                picture={picture}
                by={by}
                size={sizeSaid(choice.size)}
                picked={pickedHere}
                onOpen={(id) => openWork(id)}
                onPick={(id) => picked.flip(id)}
              />
            ) : (
              <MapPicture
                map={data}
                picture={picture}
                by={by}
                isYear={choice.along === "Year"}
                selected={workId === null ? null : (ordinals.get(workId) ?? null)}
                picked={pickedHere}
                line={line}
                hasFlows={hasFlows}
                onOpen={(of) => openWork(data.works[of]?.id ?? null)}
                onSuggested={openWork}
                onPick={(of, how) => {
                  const ids = of.flatMap((o) => data.works[o]?.id ?? []);
                  const [one] = ids;
                  if (how === "more" && one !== undefined && ids.length === 1) picked.flip(one);
                  else {
                    if (how === "only") picked.clear();
                    picked.add(ids);
                  }
                }}
                onLook={(lane, look) => lanes.look(data.lanes[lane], look)}
                onRename={(lane, name) => lanes.rename(data.lanes[lane], name)}
                onAt={onAt}
              />
            )
          ) : (
            <div className="m-6 h-40 shape" aria-label="The map is drawn" />
          )}
          {range && !isTable && choice.along === "Year" && (
            <YearThrough from={range[0]} to={range[1]} until={until} onUntil={setUntil} shown={picture?.at.size ?? 0} />
          )}
        </div>
        <MapBeside
          place={place}
          list={list}
          total={current ? total : null}
          map={data}
          ordinals={ordinals}
          by={by}
          hasSize={choice.size !== "Same"}
          picked={picked}
          inView={inView}
        />
      </div>
      <DecisionSheets {...inView.sheets} />
    </>
  );
}

function yearsOf(of: readonly { year: number | null }[]): [number, number] | null {
  const years = of.flatMap((w) => w.year ?? []);
  return years.length < 2 ? null : [Math.min(...years), Math.max(...years)];
}
