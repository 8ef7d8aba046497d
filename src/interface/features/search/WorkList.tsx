import { useVirtualizer } from "@tanstack/react-virtual";
import { forwardRef, useEffect, useImperativeHandle, useMemo, useRef } from "react";
import type { Dto } from "../../api/client";
import { Button } from "../../ui/Button";
import { Fault } from "../../ui/Fault";
import { WorkRow } from "./WorkRow";
import { pageSize, useWorkPages, type Place } from "./useSearch";

/** What keys do with the list. */
export interface ListHandle {
  /** The work in view, or the first one when there is none yet. */
  current: () => number | null;
  /** Goes so many works on. */
  move: (by: number) => boolean;
}

interface Props {
  place: Place;
  total: number | null;
  selected: number | null;
  onOpen: (id: number) => void;
  concepts: readonly Dto<"ConceptDto">[];
  onSearchNew: () => void;
}

/** Where each list was left, so that going back finds it as it was. */
const positions = new Map<string, { offset: number; work: number | null }>();

/** The list: complete, virtual, moved through by keys. Only the pages in sight are fetched. */
export const WorkList = forwardRef<ListHandle, Props>(function WorkList(
  { place, total, selected, onOpen, concepts, onSearchNew },
  ref,
) {
  const scroller = useRef<HTMLDivElement>(null);
  const listKey = `${place.reviewId} ${place.stepId} ${place.sort} ${place.hideJudged}`;
  const virtual = useVirtualizer({
    count: total ?? 0,
    getScrollElement: () => scroller.current,
    estimateSize: () => 92,
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
  const results = useWorkPages(place, pages);
  const rows = new Map<number, Dto<"WorkRowDto">>();
  results.forEach((r) => r.data?.works.forEach((w, i) => rows.set(r.data.offset + i, w)));
  const indexOf = (id: number | null) => {
    for (const [i, w] of rows) if (w.id === id) return i;
    return -1;
  };

  // A list that was left comes back where it was, with its work in the pane; a new one begins at its top.
  useEffect(() => {
    const was = positions.get(listKey);
    virtual.scrollToOffset(was?.offset ?? 0);
    if (was?.work && selected === null) onOpen(was.work);
    // Only when another list comes into view.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [listKey]);
  useEffect(() => {
    if (selected !== null) positions.set(listKey, { offset: scroller.current?.scrollTop ?? 0, work: selected });
  }, [listKey, selected]);

  useImperativeHandle(ref, () => ({
    current: () => selected ?? rows.get(items[0]?.index ?? 0)?.id ?? null,
    move: (by) => {
      const at = indexOf(selected);
      const next =
        at < 0
          ? (items.find((i) => i.start >= (scroller.current?.scrollTop ?? 0))?.index ?? 0)
          : Math.min((total ?? 1) - 1, Math.max(0, at + by));
      const row = rows.get(next);
      if (!row) return false;
      onOpen(row.id);
      virtual.scrollToIndex(next, { align: "auto" });
      return true;
    },
  }));

  const failed = results.find((r) => r.error);
  return (
    <section aria-label="Works" className="flex min-h-0 flex-col bg-raised">
      <div className="grid grid-cols-[44px_minmax(0,1fr)_auto] gap-2.5 border-b border-soft bg-paper py-0.5 pr-3.5 pl-[18px] text-[11.5px] text-faint">
        <span>year</span>
        <span>work</span>
        <span>{concepts.length > 0 ? "cited · words stand in title, key, abstract" : "cited"}</span>
      </div>
      <div
        ref={scroller}
        className="min-h-0 flex-1 overflow-y-auto"
        onScroll={(e) => positions.set(listKey, { offset: e.currentTarget.scrollTop, work: selected })}
        tabIndex={-1}
      >
        {failed ? (
          <div className="p-6">
            <Fault error={failed.error} again={() => void failed.refetch()} />
          </div>
        ) : total === 0 ? (
          <Nothing place={place} onSearchNew={onSearchNew} />
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
                  {row ? (
                    <WorkRow row={row} selected={row.id === selected} onOpen={() => onOpen(row.id)} />
                  ) : (
                    <RowShape />
                  )}
                </li>
              );
            })}
          </ol>
        )}
      </div>
    </section>
  );
});

function Nothing({ place, onSearchNew }: { place: Place; onSearchNew: () => void }) {
  return (
    <div className="p-8">
      <p className="mb-1 font-serif text-[17px]">
        {place.hideJudged ? "Every work in this set has been judged." : "No work matches all of this."}
      </p>
      <p className="mb-4 max-w-[60ch] text-quiet">
        {place.hideJudged
          ? "Show the judged ones, or go on with another search."
          : "The board (B) shows what each part finds by itself; the part that finds least is the one to loosen. Any step of the path can be gone back to."}
      </p>
      <div className="flex gap-2">
        {place.hideJudged ? (
          <Button onClick={() => place.change({ judged: null })}>Show the judged ones</Button>
        ) : (
          <Button onClick={() => window.history.back()}>Back to the step before</Button>
        )}
        <Button onClick={onSearchNew}>A new search</Button>
      </div>
    </div>
  );
}

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
