import { forwardRef, useEffect, useRef, useState, type ReactNode } from "react";
import { useKeys } from "../../ui/keys";
import { BackToList } from "../../ui/BackToList";
import { Fault } from "../../ui/Fault";
import type { Decide } from "../decide/useDecisions";
import type { Place, ShownField } from "../useSet";
import { CiteSheet } from "../take/CiteSheet";
import type { Follow } from "../useTrail";
import type { Ask } from "../useAsk";
import { useWork } from "../useWork";
import { WorkActs } from "./WorkActs";
import { WorkBody } from "./WorkBody";

interface Props {
  place: Place;
  workId: number | null;
  decide: Decide;
  onAside: (id: number) => void;
  onTag: (id: number) => void;
  ask: Ask;
  follow: Follow;
  /** The field it was opened for; null for its top. */
  shown?: ShownField | null;
  /** What the list says of the work, over all that is known of it. */
  lead?: ReactNode;
}

/** The record beside the list. */
export const WorkPane = forwardRef<HTMLElement, Props>(function WorkPane(
  { place, workId, decide, onAside, onTag, ask, follow, shown = null, lead = null },
  ref,
) {
  const work = useWork(place.reviewId, workId, place.stepId);
  const [citing, setCiting] = useState(false);
  const body = useRef<HTMLDivElement>(null);
  const at = work.data?.id;
  useEffect(() => {
    if (shown && at === shown.workId)
      body.current?.querySelector(`[data-field="${shown.field}"]`)?.scrollIntoView({ block: "center" });
  }, [shown, at]);
  useKeys({
    c: () => {
      if (workId === null) return false;
      setCiting(true);
      return true;
    },
  });
  return (
    <aside
      ref={ref}
      tabIndex={-1}
      aria-label="Work"
      aria-busy={work.isPlaceholderData}
      data-shown={at}
      className="flex min-h-0 flex-col border-l border-line outline-none"
    >
      {workId === null ? (
        <p className="p-[18px] text-quiet">
          Choose a work in the list to read about it here. J and K go to the next and the previous one.
        </p>
      ) : work.error ? (
        <div className="p-[18px]">
          <Fault error={work.error} />
        </div>
      ) : work.data ? (
        <>
          <BackToList onBack={() => place.change({ work: null }, true)} />
          <div
            className={`min-h-0 flex-1 overflow-y-auto px-[18px] py-3 ${work.isPlaceholderData ? "opacity-60" : ""}`}
            key={work.data.id}
            ref={body}
          >
            {lead}
            <WorkBody place={place} work={work.data} ask={ask} follow={follow} />
          </div>
          <WorkActs work={work.data} decide={decide} onAside={onAside} onTag={onTag} onCite={() => setCiting(true)} />
          <CiteSheet
            reviewId={place.reviewId}
            cited={{ works: [work.data.id] }}
            open={citing}
            close={() => setCiting(false)}
          />
        </>
      ) : (
        <div className="p-[18px]" aria-busy="true">
          <div className="shape mb-2 h-5 w-11/12" />
          <div className="shape mb-6 h-5 w-3/5" />
          <div className="shape h-40 w-full" />
        </div>
      )}
    </aside>
  );
});
