import { AsideSheet } from "./AsideSheet";
import { TagSheet } from "./TagSheet";
import type { Decide } from "./useDecisions";

/** The sheet that is open and the work that it asks about: the one in view may be another by the time of the answer. */
export type DecisionSheet = { kind: "aside" | "tag"; workId: number } | null;

/** The sheets that ask for a reason or a tag for a work. */
export function DecisionSheets({
  reviewId,
  stepId,
  workId: inView,
  open,
  close,
  decide,
}: {
  reviewId: number;
  stepId: number;
  workId: number | null;
  open: DecisionSheet;
  close: () => void;
  decide: Decide;
}) {
  const workId = open?.workId ?? inView;
  if (workId === null) return null;
  return (
    <>
      <AsideSheet
        key={`aside ${workId}`}
        open={open?.kind === "aside"}
        close={close}
        reviewId={reviewId}
        onReason={(reason) => decide.one(workId, "SetAside", reason)}
      />
      <TagSheet
        key={`tag ${workId}`}
        open={open?.kind === "tag"}
        close={close}
        reviewId={reviewId}
        workId={workId}
        stepId={stepId}
        decide={decide}
      />
    </>
  );
}
