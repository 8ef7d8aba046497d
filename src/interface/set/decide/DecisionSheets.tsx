import { AsideSheet } from "./AsideSheet";
import { TagSheet } from "./TagSheet";
import type { Decide } from "./useDecisions";

/** Which sheet is open. */
export type DecisionSheet = "aside" | "tag" | null;

/** The sheets that ask for a reason or a tag for the work in view. */
export function DecisionSheets({
  reviewId,
  stepId,
  workId,
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
  if (workId === null) return null;
  return (
    <>
      <AsideSheet
        key={`aside ${workId}`}
        open={open === "aside"}
        close={close}
        reviewId={reviewId}
        onReason={(reason) => decide.one(workId, "SetAside", reason)}
      />
      <TagSheet
        key={`tag ${workId}`}
        open={open === "tag"}
        close={close}
        reviewId={reviewId}
        workId={workId}
        stepId={stepId}
        decide={decide}
      />
    </>
  );
}
