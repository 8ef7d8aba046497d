import type { ComponentProps, Ref } from "react";
import { WorkList, type ListHandle } from "../../set/list/WorkList";
import type { Picked } from "../../set/list/usePicked";
import type { useWorkInView } from "../../set/list/useWorkInView";
import type { Place } from "../../set/useSet";
import { WorkPane } from "../../set/work/WorkPane";
import { TextButton } from "../../ui/TextButton";
import { works } from "../../ui/numbers";
import { useIsNarrow } from "../../ui/useIsWide";
import { MapRow } from "./MapRow";
import type { MapOf } from "./useMap";

/** What stands beside the map: the same set as a list, or the work that was opened. */
export function MapBeside({
  place,
  list,
  total,
  map,
  ordinals,
  by,
  hasSize,
  picked,
  inView,
}: {
  place: Place;
  list: Ref<ListHandle>;
  /** How many works are in view; null while that is not known. */
  total: number | null;
  map: MapOf | undefined;
  /** By id: the ordinal of a work on the map. */
  ordinals: ReadonlyMap<number, number>;
  by: readonly (readonly number[])[];
  /** Whether the size of marks says something. */
  hasSize: boolean;
  picked: Picked;
  inView: ReturnType<typeof useWorkInView>;
}) {
  const { workId } = place;
  const { openWork } = inView;
  const isNarrow = useIsNarrow();
  const row: ComponentProps<typeof WorkList>["row"] = (of) => {
    const at = ordinals.get(of.id);
    const work = at === undefined ? undefined : map?.works[at];
    return (
      <MapRow
        row={of}
        selected={of.id === workId}
        picked={picked.has(of.id)}
        cites={work?.cites.length ?? 0}
        cited={at === undefined ? 0 : (by[at]?.length ?? 0)}
        size={hasSize ? (work?.size ?? null) : null}
        onOpen={() => openWork(of.id)}
        onPick={() => picked.flip(of.id)}
      />
    );
  };
  return (
    <div className="beside flex min-h-0 flex-col border-l border-line bg-raised">
      {workId !== null && !isNarrow && (
        <TextButton
          className="shrink-0 px-3.5 py-1.5 text-left text-[12.5px] text-quiet"
          onClick={() => openWork(null)}
        >
          Back to the list{total !== null && ` of ${works(total)}`}
        </TextButton>
      )}
      {/* The list stays, so that keys go on through it and it is where it was left. */}
      <div className={workId === null ? "flex min-h-0 flex-1 flex-col" : "hidden"}>
        <WorkList
          ref={list}
          place={place}
          list={{ sort: place.sort, side: null }}
          total={total}
          selected={workId}
          onOpen={openWork}
          rowHeight={70}
          row={row}
          empty={<p className="px-3.5 py-5 text-[13px] text-quiet">No work is in view.</p>}
        />
      </div>
      {workId !== null && <WorkPane ref={inView.paneRef} {...inView.pane} />}
    </div>
  );
}
