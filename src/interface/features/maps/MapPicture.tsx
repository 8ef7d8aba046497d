import { useEffect, useRef, useState, type PointerEvent } from "react";
import type { Arranged, LaneLook } from "./arrange";
import { columnLabel, isTicked } from "./columns";
import { linksSaid } from "./links";
import { Layer } from "./Layer";
import { MapBase } from "./MapBase";
import { MapFocus } from "./MapFocus";
import { LaneLinks } from "./LaneLinks";
import { LaneHead } from "./LaneHead";
import { laneColour } from "./marks";
import { useLooking, useNearest } from "./useLooking";
import type { MapAlong, MapColour, MapOf } from "./useMap";
import { Planned } from "./Planned";
import { StrongestLinks } from "./StrongestLinks";
import { Suggested } from "./Suggested";
import { whyNeighbour } from "../../set/neighbourWords";
import { Press } from "../../ui/Press";
import type { Dto } from "../../api/client";
import { works } from "../../ui/numbers";

/** Width of the lanes' names. */
export const gutter = 154;
const top = 26;
/** Room for arcs that hang below the last lane. */
const below = 56;
const still = 4;
const labelWidth = 34;

interface Box {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
}

/** The picture itself: looked at with the pointer or the keys, picked from by dragging, clicking or Space. */
export function MapPicture({
  map,
  picture,
  by,
  along,
  colour,
  selected,
  picked,
  line,
  hasFlows,
  hasStrongest,
  boxes,
  onOpen,
  onSuggested,
  onPick,
  onLook,
  onRename,
  onAt,
}: {
  map: MapOf;
  picture: Arranged;
  by: readonly (readonly number[])[];
  along: MapAlong;
  colour: MapColour;
  /** Ordinal of the work in the pane. */
  selected: number | null;
  picked: ReadonlySet<number>;
  line: readonly number[];
  /** Whether links are drawn from lane to lane. */
  hasFlows: boolean;
  /** Whether the strongest link of each work is drawn. */
  hasStrongest: boolean;
  /** Whether a finger draws a box instead of moving the map. */
  boxes: boolean;
  onOpen: (of: number) => void;
  onSuggested: (id: number) => void;
  /** Picks works; those that all are picked already are left. */
  onPick: (of: readonly number[], how: "only" | "more") => void;
  onLook: (lane: number, look: LaneLook) => void;
  onRename: (lane: number, name: string) => void;
  /** Is told which work the keys are at. */
  onAt: (of: number | null) => void;
}) {
  const room = useRef<HTMLDivElement>(null);
  // Moves come faster than the page is drawn: the box itself is kept beside what is shown of it.
  const drawn = useRef<Box | null>(null);
  const [box, showBox] = useState<Box | null>(null);
  const setBox = (b: Box | null) => {
    drawn.current = b;
    showBox(b);
  };
  const [suggestion, setSuggestion] = useState<Dto<"SuggestionDto"> | null>(null);
  const [looksAtPlan, setLooksAtPlan] = useState(false);
  // A lane that is not drawn has no place for suggestions.
  const shift = (lane: number) => {
    const drawnLane = picture.lanes.find((l) => l.of === lane && !l.isFolded);
    return drawnLane && drawnLane.y - (map.lanes[lane]?.y ?? 0);
  };
  const nearest = useNearest(picture);
  const looking = useLooking(picture, by);
  const { at } = looking;
  useEffect(() => {
    onAt(at);
  }, [at, onAt]);
  const focus = looking.hovered ?? looking.at ?? selected;
  const shown = focus === null ? undefined : picture.at.get(focus);
  const point = (e: PointerEvent) => {
    const frame = room.current?.getBoundingClientRect();
    return { x: e.clientX - (frame?.left ?? 0), y: e.clientY - (frame?.top ?? 0) };
  };
  const isFar = (b: Box) => Math.abs(b.x1 - b.x0) > still || Math.abs(b.y1 - b.y0) > still;
  const release = (e: PointerEvent, b: Box) => {
    const how = e.shiftKey || e.ctrlKey || e.metaKey ? "more" : "only";
    if (isFar(b)) {
      const inside = [...picture.at.values()].filter(
        (m) =>
          m.x >= Math.min(b.x0, b.x1) &&
          m.x <= Math.max(b.x0, b.x1) &&
          m.y >= Math.min(b.y0, b.y1) &&
          m.y <= Math.max(b.y0, b.y1),
      );
      onPick(
        inside.map((m) => m.of),
        how,
      );
      return;
    }
    const mark = nearest(b.x0, b.y0);
    const bin = picture.bins.find((n) => b.x0 >= n.x && b.x0 <= n.x + n.width && b.y0 >= n.y && b.y0 <= n.y + n.height);
    if (mark && how === "more") onPick([mark.of], "more");
    else if (mark) {
      looking.goTo(mark.of);
      onOpen(mark.of);
    } else onPick(bin?.works ?? [], how);
  };
  const column = (x: number, width: number) =>
    [...picture.at.values()].filter((m) => m.x >= x && m.x < x + width).map((m) => m.of);
  const isLabelled = isTicked(map, along);
  const { plan } = map;
  const planShift = plan === null ? undefined : shift(plan.work.lane);
  const beside =
    suggestion !== null
      ? { ...suggestion, shift: shift(suggestion.work.lane) ?? 0 }
      : plan !== null && looksAtPlan && planShift !== undefined
        ? { work: plan.work, citedBy: plan.citedBy, shift: planShift }
        : null;
  const isFaint = hasFlows || hasStrongest || beside !== null || focus !== null || picked.size > 0 || line.length > 0;
  return (
    <div
      role="group"
      aria-label={
        `Map of ${works(map.works.length)}. Arrows go from work to work, Tab along its links, ` +
        "Space picks, Enter opens, Escape leaves."
      }
      // The picture is gone through by keys, as a list is.
      // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex
      tabIndex={0}
      className="relative min-h-0 flex-1 overflow-auto bg-paper outline-offset-[-2px]"
      onKeyDown={(e) => {
        if (e.target !== e.currentTarget) return;
        const was = looking.at;
        if (e.key === " " && was !== null) onPick([was], "more");
        else if (e.key === "Enter" && was !== null && looking.link === null) onOpen(was);
        else if (!looking.key(e)) return;
        e.preventDefault();
        e.stopPropagation();
      }}
      onBlur={() => looking.hover(null)}
    >
      <p className="sr-only" aria-live="polite">
        {looking.at !== null && shown
          ? looking.link === null
            ? `${shown.work.name}: ${shown.work.title}. ${linksSaid(shown, by[shown.of]?.length ?? 0)}.`
            : `${looking.isBack ? "cites" : "cited by"} ${picture.at.get(looking.link)?.work.name ?? ""}: ` +
              (picture.at.get(looking.link)?.work.title ?? "")
          : ""}
      </p>
      <div className="relative" style={{ width: gutter + map.width, height: top + picture.height + below }}>
        <div className="sticky top-0 z-20 h-[26px] border-b border-line bg-paper" style={{ paddingLeft: gutter }}>
          {map.columns.filter(isLabelled).map((c) => (
            <Press
              key={c.x}
              title="Pick what stands here"
              className="absolute top-1 rounded px-0.5 text-[11.5px] whitespace-nowrap text-quiet hover:text-ink hover:underline"
              style={
                c.x + labelWidth > map.width
                  ? { right: Math.max(0, map.width - c.x - c.width) }
                  : { left: gutter + c.x }
              }
              onClick={(e) => onPick(column(c.x, c.width), e.shiftKey ? "more" : "only")}
            >
              {columnLabel(c, along)}
            </Press>
          ))}
        </div>
        <div className="sticky left-0 z-10 w-0">
          {picture.lanes.map((lane) => (
            <LaneHead
              key={lane.of}
              lane={lane}
              several={map.lanes[lane.of]?.several ?? 0}
              colour={laneColour(map, lane.of)}
              width={gutter}
              onPick={(how) =>
                onPick(
                  [...picture.at.values()].filter((m) => m.work.lane === lane.of).map((m) => m.of),
                  how,
                )
              }
              onLook={(look) => onLook(lane.of, look)}
              onRename={(name) => onRename(lane.of, name)}
            />
          ))}
        </div>
        <Suggested
          suggested={map.suggested}
          left={gutter}
          top={top}
          shift={shift}
          onLook={setSuggestion}
          onOpen={onSuggested}
        />
        {plan && planShift !== undefined && (
          <Planned
            plan={plan}
            // At the edge it stands inward a little, or the map would grow by its outline.
            at={{ x: gutter + Math.min(plan.work.x, map.width - 14), y: top + plan.work.y + planShift }}
            onLook={setLooksAtPlan}
            onOpen={() => onSuggested(plan.work.id)}
          />
        )}
        {suggestion && (
          <p
            className="pointer-events-none absolute z-10 max-w-[330px] rounded border border-line bg-raised px-2 py-1 text-[12px] shadow-lg"
            style={{
              left: gutter + Math.min(suggestion.work.x + 14, Math.max(0, map.width - 330)),
              top: top + suggestion.work.y + (shift(suggestion.work.lane) ?? 0) + 14,
            }}
          >
            <b className="font-semibold">{suggestion.work.name}</b>: {suggestion.work.title}
            <span className="block text-quiet">{whyNeighbour(suggestion.inCommon)}</span>
            {suggestion.isByLinks && <span className="block text-quiet">in this lane by its links alone</span>}
          </p>
        )}
        <div
          ref={room}
          role="img"
          aria-label={`${works(picture.at.size)} in ${picture.lanes.length} lanes`}
          className={`absolute ${boxes ? "touch-none" : "touch-pan-x touch-pan-y"} ${isFaint ? "map-faint" : ""}`}
          style={{
            left: gutter,
            top,
            width: map.width,
            height: picture.height,
            cursor: looking.hovered === null ? "crosshair" : "pointer",
          }}
          onPointerMove={(e) => {
            const p = point(e);
            if (drawn.current) setBox({ ...drawn.current, x1: p.x, y1: p.y });
            else looking.hover(nearest(p.x, p.y)?.of ?? null);
          }}
          onPointerLeave={() => looking.hover(null)}
          onPointerDown={(e) => {
            if (e.button !== 0) return;
            const p = point(e);
            if (e.pointerType !== "touch" || boxes) e.currentTarget.setPointerCapture(e.pointerId);
            setBox({ x0: p.x, y0: p.y, x1: p.x, y1: p.y });
          }}
          onPointerUp={(e) => {
            if (drawn.current) release(e, drawn.current);
            setBox(null);
          }}
          onPointerCancel={() => setBox(null)}
        >
          <MapBase map={map} picture={picture} along={along} colour={colour} width={map.width} />
          {hasStrongest && (
            <Layer>
              <StrongestLinks picture={picture} />
            </Layer>
          )}
          <Layer>
            {hasFlows && <LaneLinks map={map} picture={picture} />}
            <MapFocus
              map={map}
              picture={picture}
              colour={colour}
              by={by}
              focus={focus}
              link={looking.link}
              picked={picked}
              line={line}
              beside={beside}
              width={map.width}
            />
            {box && isFar(box) && (
              <rect
                x={Math.min(box.x0, box.x1)}
                y={Math.min(box.y0, box.y1)}
                width={Math.abs(box.x1 - box.x0)}
                height={Math.abs(box.y1 - box.y0)}
                fill="var(--pine)"
                fillOpacity={0.1}
                stroke="var(--pine)"
                strokeDasharray="4 3"
              />
            )}
          </Layer>
        </div>
      </div>
    </div>
  );
}
