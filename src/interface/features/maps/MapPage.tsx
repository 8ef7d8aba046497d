import { useCallback, useMemo, useRef, useState } from "react";
import { useSearchParams } from "react-router";
import type { Dto } from "../../api/client";
import { useReview } from "../../review/useReviews";
import { DecisionSheets } from "../../set/decide/DecisionSheets";
import { PickedBar } from "../../set/list/PickedBar";
import { WorkList, type ListHandle } from "../../set/list/WorkList";
import { usePicked } from "../../set/list/usePicked";
import { useWorkInView } from "../../set/list/useWorkInView";
import { NarrowBar } from "../../set/narrow/NarrowBar";
import { PathStair } from "../../set/path/PathStair";
import { useAsk } from "../../set/useAsk";
import { usePath, usePlace, useStepView, useTakeStep, useVisit, type Place } from "../../set/useSet";
import { WorkPane } from "../../set/work/WorkPane";
import { Fault } from "../../ui/Fault";
import { TextButton } from "../../ui/TextButton";
import { useKeys } from "../../ui/keys";
import { works } from "../../ui/numbers";
import { useIsNarrow } from "../../ui/useIsWide";
import { useLateSize } from "./useLateSize";
import { arrange, laneKey, type LaneLook } from "./arrange";
import { mapSvg, pngOf, save } from "./exportMap";
import { citedBy, pathBetween } from "./links";
import { MapBar } from "./MapBar";
import { MapLegend } from "./MapLegend";
import { MapPicture, gutter } from "./MapPicture";
import { MapRow } from "./MapRow";
import { MapTable } from "./MapTable";
import { StartMap } from "./StartMap";
import { YearThrough } from "./YearThrough";
import { useMap, type Choice } from "./useMap";
import { withoutWords } from "./words";
import { useSayFault } from "../../ui/Toasts";

const none: readonly number[] = [];

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
  const take = useTakeStep(place);
  useVisit(reviewId, stepId);
  const isNarrow = useIsNarrow();
  const [choice, setChoice] = useChoice();
  const [zoom, setZoom] = useState(1);
  const [looks, setLooks] = useState<Record<string, LaneLook>>({});
  const [names, setNames] = useState<Record<string, string>>({});
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
  const fault = useSayFault();

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
    () => (data ? arrange(data, looks, names, nameOf, until) : null),
    [data, looks, names, nameOf, until],
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

  if (view.error)
    return (
      <div className="p-8">
        <Fault error={view.error} again={() => change({ step: null, work: null })} />
      </div>
    );

  const line = !data || !picture ? none : hasLine ? data.mainLine : between();
  const total = view.data?.count ?? 0;
  const caption = () => [
    `${review.title}: ${path.data?.steps.find((s) => s.id === stepId)?.label ?? "works"}`,
    `${works(data?.works.length ?? 0)}, ${data?.links ?? 0} citations among them; ${new Date().toLocaleDateString("en-GB", { day: "numeric", month: "long", year: "numeric" })}. Pennant: kept; ring: found; cross: set aside.`,
  ];
  /** Two picked works are joined by the way between them. */
  function between(): readonly number[] {
    const two = [...pickedHere];
    if (!data || two.length !== 2) return none;
    return pathBetween(data.works, by, two[0] ?? 0, two[1] ?? 0) ?? none;
  }
  const svg = () =>
    data && picture
      ? mapSvg(data, picture, caption(), choice.along === "Year", 25)
      : "<svg xmlns='http://www.w3.org/2000/svg'/>";
  const file = (format: string) => {
    const query = new URLSearchParams(
      Object.entries({ ...choice, ...frame }).map(([name, value]): [string, string] => [name, String(value)]),
    );
    window.location.assign(`/api/reviews/${reviewId}/steps/${stepId}/map/${format}?${query.toString()}`);
  };
  const range = yearsOf(data?.works ?? []);
  return (
    <>
      <PathStair place={place} path={path.data ?? null} band={[review.bandLow, review.bandHigh]} isThin />
      <NarrowBar place={place} view={view.data ?? null} take={(act) => take.mutate({ act })} decide={decide} />
      <MapBar
        choice={choice}
        onChoice={(c) => {
          setChoice(c);
          if (c.lanes !== undefined) setLooks({});
        }}
        databases={view.data?.ledger.databases ?? []}
        hasSeeds={data?.seeds ?? false}
        hasHidden={Object.keys(looks).length + Object.keys(names).length > 0}
        onShowAll={() => {
          setLooks({});
          setNames({});
        }}
        line={hasLine}
        onLine={() => setLine(!hasLine)}
        flows={hasFlows}
        onFlows={() => setFlows(!hasFlows)}
        zoom={zoom}
        onZoom={setZoom}
        isTable={isTable}
        onTable={() => setTable(!isTable)}
        exports={[
          ["SVG", "for print", () => save("map.svg", "image/svg+xml", svg())],
          ["PNG", "twice as fine", () => void pngOf(svg(), 2).then((p) => save("map.png", "image/png", p), fault)],
          ["GraphML", "graph programs", () => file("graphml")],
          ["CSV", "spreadsheets", () => file("csv")],
        ]}
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
                map={data}
                picture={picture}
                by={by}
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
                onLook={(lane, look) => {
                  const of = data.lanes[lane];
                  if (of) setLooks((l) => ({ ...l, [laneKey(of)]: look }));
                }}
                onRename={(lane, name) => {
                  const of = data.lanes[lane];
                  if (of) setNames((n) => ({ ...n, [laneKey(of)]: name || of.label }));
                }}
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
        <div className="beside flex min-h-0 flex-col border-l border-line bg-raised">
          {workId === null || isNarrow ? null : (
            <TextButton
              className="shrink-0 px-3.5 py-1.5 text-left text-[12.5px] text-quiet"
              onClick={() => openWork(null)}
            >
              Back to the list of {works(total)}
            </TextButton>
          )}
          <div className={workId === null ? "flex min-h-0 flex-1 flex-col" : "hidden"}>
            <WorkList
              ref={list}
              place={place}
              list={{ sort: place.sort, side: null }}
              total={current ? total : null}
              selected={workId}
              onOpen={openWork}
              rowHeight={70}
              row={(row) => {
                const of = ordinals.get(row.id);
                const work = of === undefined ? undefined : data?.works[of];
                return (
                  <MapRow
                    row={row}
                    selected={row.id === workId}
                    picked={picked.has(row.id)}
                    cites={work?.cites.length ?? 0}
                    cited={of === undefined ? 0 : (by[of]?.length ?? 0)}
                    size={choice.size === "Same" ? null : (work?.size ?? null)}
                    onOpen={() => openWork(row.id)}
                    onPick={() => picked.flip(row.id)}
                  />
                );
              }}
              empty={<p className="px-3.5 py-5 text-[13px] text-quiet">No work is in view.</p>}
            />
          </div>
          {workId !== null && <WorkPane ref={inView.paneRef} {...inView.pane} />}
        </div>
      </div>
      <DecisionSheets {...inView.sheets} />
    </>
  );
}

/** What is chosen stands in the address, so that a map can be sent to somebody. */
function useChoice(): [Choice, (next: Partial<Choice>) => void] {
  const [params, setParams] = useSearchParams();
  const choice: Choice = useMemo(
    () => ({
      lanes: (params.get("lanes") ?? "Topic") as Choice["lanes"],
      order: (params.get("order") ?? "Size") as Choice["order"],
      along: (params.get("along") ?? "Year") as Choice["along"],
      size: (params.get("size") ?? "Cited") as Choice["size"],
      database: Number(params.get("database") ?? 0) || 0,
      open: params.get("open") === "true",
      suggest: Number(params.get("suggest") ?? 0) || 0,
    }),
    [params],
  );
  return [
    choice,
    (next) =>
      setParams(
        (old) => {
          const p = new URLSearchParams(old);
          for (const [name, value] of Object.entries(next)) p.set(name, String(value));
          return p;
        },
        { replace: true },
      ),
  ];
}

function yearsOf(of: readonly { year: number | null }[]): [number, number] | null {
  const years = of.flatMap((w) => w.year ?? []);
  return years.length < 2 ? null : [Math.min(...years), Math.max(...years)];
}
