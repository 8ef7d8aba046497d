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
import { pathBetween } from "./links";
import { margins } from "./exportMap";
import { MapBar, type Drawn } from "./MapBar";
import { MapBeside } from "./MapBeside";
import { MapLegend } from "./MapLegend";
import { MapPicture, gutter } from "./MapPicture";
import { MapTable } from "./MapTable";
import { NamedStrip } from "./NamedStrip";
import { PictureSheet } from "./PictureSheet";
import { PinnedCards } from "./PinnedCards";
import { PlanStrip } from "./PlanStrip";
import { SaveMapSheet } from "./SaveMapSheet";
import { lanesOf, lookOf } from "./looks";
import { mostPins, useChoice } from "./useChoice";
import { useExports } from "./useExports";
import { useLaneLooks } from "./useLaneLooks";
import { StartMap } from "./StartMap";
import { YearThrough } from "./YearThrough";
import { useTopicsAnew } from "./useMap";
import { useShownMap } from "./useShownMap";
import { useNamedMaps, type NamedMap } from "./useNamedMaps";
import { useEntryNames } from "./usePlan";
import { usePlanning } from "./usePlanning";
import { sizeSaid } from "./words";

const none: readonly number[] = [];
const noEntries: readonly Dto<"EntryNameDto">[] = [];
const noPaths: readonly { id: number; label: string }[] = [];
/** So many of the newest paths can be held against the map. */
const mostOthers = 12;

/** Map: a set in lanes through time, or the choice of one. */
export function MapPage({ reviewId }: { reviewId: number }) {
  const review = useReview(reviewId).data;
  const place = usePlace(reviewId, null);
  const { named, change } = useChoice();
  const [saved, setSaved] = useState<{ id: number; key: number } | null>(null);
  const maps = useNamedMaps(reviewId);
  if (!review) return null;
  if (place.stepId === 0) return <StartMap review={review} />;
  // A named map begins as it was saved.
  if (named !== null && maps.isPending) return null;
  const open = maps.data?.find((m) => m.id === named) ?? null;
  // One that was just saved from here is looked at already as it was saved.
  const key = saved !== null && saved.id === open?.id ? saved.key : (open?.id ?? 0);
  return (
    <SetOnMap
      key={key}
      review={review}
      place={place}
      named={open}
      onSaved={(id) => {
        setSaved({ id, key });
        change({ named: id });
      }}
    />
  );
}

/** The set in view as a map; the list beside it is the same set. */
function SetOnMap({
  review,
  place,
  named,
  onSaved,
}: {
  review: Dto<"ReviewDto">;
  place: Place;
  /** The named map that is open; null for none. */
  named: NamedMap | null;
  /** Told the number under which the map was saved. */
  onSaved: (id: number) => void;
}) {
  const reviewId = review.id;
  const { stepId, workId, change } = place;
  const path = usePath(reviewId, stepId);
  const view = useStepView(reviewId, stepId);
  const current = view.data?.stepId === stepId;
  const paths = usePaths(reviewId, true).data ?? noPaths;
  const others = paths.filter((p) => p.id !== stepId).slice(0, mostOthers);
  const take = useTakeStep(place);
  useVisit(reviewId, stepId);
  const { choice, colour, pins, change: setChoice } = useChoice();
  const [zoom, setZoom] = useState(1);
  const lanes = useLaneLooks(named ? lanesOf(named.look) : undefined);
  const [until, setUntil] = useState(named?.look.until ?? null);
  const [isTable, setTable] = useState(false);
  const [drawn, setDrawn] = useState<Drawn>({ mainLine: false, flows: false, strongest: false });
  const [boxes, setBoxes] = useState(false);
  const [sheet, setSheet] = useState<"save" | "picture" | null>(null);
  const planning = usePlanning(reviewId, (id) => setChoice({ plan: id, against: 0 }));
  const entries = useEntryNames(reviewId).data ?? noEntries;
  const room = useRef<HTMLDivElement>(null);
  const size = useLateSize(room, 120);
  const frame = useMemo(
    () =>
      size ? { width: Math.max(320, size.width - gutter - 16) * zoom, height: Math.max(200, size.height - 60) } : null,
    [size, zoom],
  );
  const { map, arranged, picture, by, ordinals } = useShownMap(
    reviewId,
    stepId,
    choice,
    frame,
    lanes,
    // The slider goes with years; without it nothing is left out unseen.
    choice.along === "Year" ? until : null,
    current,
  );
  const data = map.data;
  const anew = useTopicsAnew(reviewId, stepId);
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
    colour,
    frame,
    map: data,
    picture,
    arranged,
    picked: pickedHere,
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
  const line = drawn.mainLine ? (data?.mainLine ?? none) : (way ?? none);
  const entry = entries.find((e) => e.workId === choice.plan);
  const range = yearsOf(data?.works ?? []);
  return (
    <>
      <PathStair place={place} path={path.data ?? null} band={[review.bandLow, review.bandHigh]} isThin />
      <NarrowBar place={place} view={view.data ?? null} take={(act) => take.mutate({ act })} decide={decide} />
      <MapBar
        choice={choice}
        colour={colour}
        onChoice={(c) => {
          setChoice(c);
          if (c.lanes !== undefined) lanes.reset();
        }}
        databases={view.data?.ledger.databases ?? []}
        others={others}
        papers={entries}
        onPlan={() => planning.begin(picked.ids)}
        hasSeeds={data?.seeds ?? false}
        hasHidden={lanes.isChanged}
        onShowAll={lanes.reset}
        drawn={drawn}
        onDrawn={setDrawn}
        zoom={zoom}
        onZoom={setZoom}
        boxes={boxes}
        onBoxes={() => setBoxes(!boxes)}
        isTable={isTable}
        onTable={() => setTable(!isTable)}
        onSave={() => setSheet("save")}
        exports={exports}
        onPicture={() => setSheet("picture")}
      />
      {named && <NamedStrip map={named} />}
      {data?.plan && (
        <PlanStrip
          map={data}
          plan={data.plan}
          by={by}
          ordinals={ordinals}
          laneName={(l) => picture?.lanes.find((lane) => lane.of === l)?.label ?? data.lanes[l]?.label ?? ""}
          picked={picked}
          onCiteMore={entry ? (more) => planning.citeMore(entry.id, more) : null}
          onOff={() => setChoice({ plan: 0 })}
        />
      )}
      {picked.ids.length > 0 && (
        <PickedBar
          reviewId={reviewId}
          picked={picked}
          decide={decide}
          follow={follow}
          onPin={() => setChoice({ pins: [...new Set([...pins, ...picked.ids])].slice(-mostPins) })}
          onOnly={() => take.mutate({ act: { kind: "Among", works: [...picked.ids], said: "picked on the map" } })}
        />
      )}
      <div
        className={`grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_370px] max-[1150px]:grid-cols-[minmax(0,1fr)_300px]
          max-sm:grid-cols-[minmax(0,1fr)] ${workId === null ? "max-sm:[&>.beside]:hidden" : "max-sm:[&>.map]:hidden"}`}
      >
        <div ref={room} className="map flex min-h-0 min-w-0 flex-col">
          {data && (
            <MapLegend
              map={data}
              choice={choice}
              colour={colour}
              onOpen={() => setChoice({ open: !choice.open })}
              onAnew={review.role === "Reader" ? null : anew.mutate}
            />
          )}
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
                suggested={data.suggested}
                picked={pickedHere}
                onOpen={(id) => openWork(id)}
                onPick={(id) => picked.flip(id)}
              />
            ) : (
              <MapPicture
                map={data}
                picture={picture}
                by={by}
                along={choice.along}
                colour={colour}
                selected={workId === null ? null : (ordinals.get(workId) ?? null)}
                picked={pickedHere}
                line={line}
                hasFlows={drawn.flows}
                hasStrongest={drawn.strongest}
                boxes={boxes}
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
          {data && pins.length > 0 && (
            <PinnedCards
              reviewId={reviewId}
              stepId={stepId}
              pins={pins}
              map={data}
              ordinals={ordinals}
              by={by}
              onOpen={openWork}
              onUnpin={(id) => setChoice({ pins: pins.filter((p) => p !== id) })}
            />
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
      {sheet === "save" && (
        <SaveMapSheet
          reviewId={reviewId}
          stepId={stepId}
          look={lookOf(choice, colour, pins, until, lanes)}
          over={named}
          close={() => setSheet(null)}
          onSaved={onSaved}
        />
      )}
      {sheet === "picture" && exports && data && (
        <PictureSheet
          exports={exports}
          width={data.width + margins}
          picked={pickedHere.size}
          close={() => setSheet(null)}
        />
      )}
      {planning.sheet}
    </>
  );
}

function yearsOf(of: readonly { year: number | null }[]): [number, number] | null {
  const years = of.flatMap((w) => w.year ?? []);
  return years.length < 2 ? null : [Math.min(...years), Math.max(...years)];
}
