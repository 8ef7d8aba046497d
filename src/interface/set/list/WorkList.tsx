import { useVirtualizer } from "@tanstack/react-virtual";
import { forwardRef, useEffect, useImperativeHandle, useMemo, useRef, type ReactNode } from "react";
import type { Dto } from "../../api/client";
import { Fault } from "../../ui/Fault";
import { useGoneTo } from "../../ui/useGoneTo";
import { pageSize, useWorkPages, type ListOf, type Place } from "../useSet";

/** What keys do with the list. */
export interface ListHandle {
  /** The work in view, or the first one when there is none yet. */
  current: () => number | null;
  /** Goes so many works on. */
  move: (by: number) => boolean;
  /** The works from one to another as they stand in the list, both included; only those at hand. */
  between: (from: number, to: number) => number[];
}

interface Props {
  place: Place;
  list: ListOf;
  label?: string;
  total: number | null;
  selected: number | null;
  onOpen: (id: number) => void;
  /** Is told which work comes first, as soon as it is known; null while there is none. */
  onFirst?: (id: number | null) => void;
  /** Is told whether one is further down in the list. */
  onDown?: (isDown: boolean) => void;
  /** What stands over the rows. */
  head?: ReactNode;
  /** One row; the list gives it its place. */
  row: (row: Dto<"WorkRowDto">) => ReactNode;
  /** About how high a row is, in pixels, before it is measured. */
  rowHeight?: number;
  /** What stands there when nothing is in view. */
  empty: ReactNode;
}

const downFrom = 80;
const upFrom = 4;

/** Where each list was left, so that going back finds it as it was. */
const positions = new Map<string, { offset: number; work: number | null }>();

/** The list: complete, virtual, moved through by keys. Only the pages in sight are fetched. */
export const WorkList = forwardRef<ListHandle, Props>(function WorkList(
  { place, list, label = "Works", total, selected, onOpen, onFirst, onDown, head, row: rowOf, rowHeight = 92, empty },
  ref,
) {
  const scroller = useRef<HTMLDivElement>(null);
  const listKey = `${place.reviewId} ${place.stepId} ${list.sort} ${list.side ?? ""} ${place.hideJudged}`;
  const virtual = useVirtualizer({
    count: total ?? 0,
    getScrollElement: () => scroller.current,
    estimateSize: () => rowHeight,
    overscan: 6,
    initialOffset: () => positions.get(listKey)?.offset ?? 0,
  });
  const items = virtual.getVirtualItems();
  const firstPage = Math.floor((items[0]?.index ?? 0) / pageSize);
  const lastPage = Math.floor((items.at(-1)?.index ?? 0) / pageSize);
  const pages = useMemo(
    () => Array.from({ length: total === 0 ? 0 : lastPage - firstPage + 1 }, (_, i) => firstPage + i),
    [firstPage, lastPage, total],
  );
  const results = useWorkPages(place, list, pages);
  const rows = new Map<number, Dto<"WorkRowDto">>();
  results.forEach((r) => r.data?.works.forEach((w, i) => rows.set(r.data.offset + i, w)));
  const gone = useGoneTo(selected);
  const indexOf = (id: number | null) => {
    for (const [i, w] of rows) if (w.id === id) return i;
    return -1;
  };

  // A list that was left comes back where it was, with its work in the pane; a new one begins at its top.
  useEffect(() => {
    const was = positions.get(listKey);
    virtual.scrollToOffset(was?.offset ?? 0);
    if (was?.work && place.workId === null) onOpen(was.work);
    // Only when another list comes into view.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [listKey]);
  useEffect(() => {
    if (place.workId !== null) positions.set(listKey, { offset: scroller.current?.scrollTop ?? 0, work: place.workId });
  }, [listKey, place.workId]);

  useImperativeHandle(ref, () => ({
    current: () => gone.now() ?? rows.get(items[0]?.index ?? 0)?.id ?? null,
    between: (from, to) => {
      const [a, b] = [indexOf(from), indexOf(to)].sort((x, y) => x - y) as [number, number];
      if (a < 0) return [];
      const stretch = [];
      for (let i = a; i <= b; i++) {
        const row = rows.get(i);
        if (row) stretch.push(row.id);
      }
      return stretch;
    },
    move: (by) => {
      const at = indexOf(gone.now());
      const next =
        at < 0
          ? (items.find((i) => i.start >= (scroller.current?.scrollTop ?? 0))?.index ?? 0)
          : Math.min((total ?? 1) - 1, Math.max(0, at + by));
      const row = rows.get(next);
      if (!row) return false;
      gone.go(row.id);
      onOpen(row.id);
      virtual.scrollToIndex(next, { align: "auto" });
      return true;
    },
  }));

  const first = (total === 0 ? null : rows.get(0)?.id) ?? null;
  useEffect(() => onFirst?.(first), [first, onFirst]);

  const failed = results.find((r) => r.error);
  return (
    <section aria-label={label} className="flex min-h-0 flex-1 flex-col bg-raised">
      {head}
      <div
        ref={scroller}
        className="min-h-0 flex-1 overflow-y-auto"
        onScroll={(e) => {
          const offset = e.currentTarget.scrollTop;
          positions.set(listKey, { offset, work: place.workId });
          // What gets thinner over the list makes it longer: between the two marks nothing changes.
          if (offset > downFrom) onDown?.(true);
          else if (offset <= upFrom) onDown?.(false);
        }}
        tabIndex={-1}
      >
        {failed ? (
          <div className="p-6">
            <Fault error={failed.error} again={() => void failed.refetch()} />
          </div>
        ) : total === 0 ? (
          empty
        ) : (
          <ol className="relative" style={{ height: virtual.getTotalSize() }}>
            {items.map((item) => {
              const row = rows.get(item.index);
              return (
                <li
                  key={item.key}
                  ref={virtual.measureElement}
                  data-index={item.index}
                  aria-setsize={total ?? -1}
                  aria-posinset={item.index + 1}
                  className="absolute top-0 left-0 w-full"
                  style={{ transform: `translateY(${item.start}px)` }}
                >
                  {row ? rowOf(row) : <RowShape />}
                </li>
              );
            })}
          </ol>
        )}
      </div>
    </section>
  );
});

function RowShape() {
  return (
    <div
      className="grid h-[92px] grid-cols-[44px_minmax(0,1fr)_150px] gap-2.5 border-b border-soft py-2.5 pr-3.5 pl-[18px]"
      aria-hidden="true"
    >
      <div className="shape h-4 w-8" />
      <div>
        <div className="shape mb-2 h-4 w-4/5" />
        <div className="shape mb-2 h-3 w-2/5" />
        <div className="shape h-3 w-3/4" />
      </div>
      <div className="shape h-4" />
    </div>
  );
}
