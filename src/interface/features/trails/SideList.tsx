import { forwardRef, type ReactNode } from "react";
import type { Dto } from "../../api/client";
import { WorkList, type ListHandle } from "../../set/list/WorkList";
import type { TrailWay } from "../../set/useSet";
import { TrailRow } from "./TrailRow";
import type { SideProps } from "./sideProps";

type Row = Dto<"WorkRowDto">;

interface Props extends Omit<SideProps, "onSort" | "take" | "state"> {
  label: string;
  /** Which side of a trail; null where there is but one list. */
  way?: TrailWay | null;
  total: number;
  rowHeight?: number;
  /** Why a work is here, where its ties do not say so. */
  why?: (row: Row) => string | null;
  /** Marks of the seeds that a work is tied to. */
  ties?: (row: Row) => ReactNode;
  /** What the text of a work says of a seed. */
  says?: (row: Row) => ReactNode;
  /** Whether the person looked at a work in this round. */
  isSeen?: (row: Row) => boolean;
  empty: string;
}

/** The works of one list beside the seeds. */
export const SideList = forwardRef<ListHandle, Props>(function SideList(
  { label, way = null, total, rowHeight = 94, why, ties, says, isSeen, empty, place, sort, selected, onOpen, onDown },
  ref,
) {
  return (
    <WorkList
      ref={ref}
      label={label}
      place={place}
      list={{ sort, side: way }}
      total={place.hideJudged ? null : total}
      selected={selected}
      onOpen={onOpen}
      onDown={onDown}
      rowHeight={rowHeight}
      row={(row) => (
        <TrailRow
          row={row}
          selected={row.id === selected}
          onOpen={() => onOpen(row.id)}
          why={why?.(row) ?? null}
          ties={ties?.(row)}
          says={says?.(row)}
          isSeen={isSeen?.(row) ?? false}
        />
      )}
      empty={<p className="px-[18px] py-5 text-[13px] text-quiet">{empty}</p>}
    />
  );
});
