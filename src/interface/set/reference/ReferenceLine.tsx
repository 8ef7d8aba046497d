import { useState, type ReactNode } from "react";
import { TextButton } from "../../ui/TextButton";
import { moment } from "../../ui/numbers";
import { ChooseWork } from "./ChooseWork";
import { useUndoResolution, type CitedReference } from "./useResolutions";

/**
 * A reference as printed, with the work it means and why, or that no record fits; from here a person says what it means,
 * or takes that back.
 */
export function ReferenceLine({
  reviewId,
  reference: r,
  mayResolve,
  beside,
}: {
  reviewId: number;
  reference: CitedReference;
  mayResolve: boolean;
  /** What stands at its right edge. */
  beside?: ReactNode;
}) {
  const [isOpen, setOpen] = useState(false);
  const undo = useUndoResolution(reviewId);
  return (
    <li className="grid grid-cols-[minmax(0,1fr)_auto] gap-x-4 py-2">
      <p className="font-serif text-[14px] leading-snug break-words">{r.text || r.doi}</p>
      <span className="row-span-2 flex h-fit flex-wrap justify-end gap-[2px]">{beside}</span>
      <p className="text-[12px] text-quiet">
        in {r.databases.join(", ")}
        {r.workId === null ? (
          <> · no matching record; not counted in trails</>
        ) : (
          <>
            {" · "}
            {r.resolution
              ? `matched by ${r.resolution.by || "a former member"} on ${moment(r.resolution.at)}`
              : `by ${r.evidence}`}
            {r.sure < 0.95 && <> ({Math.round(r.sure * 100)} in 100)</>}: <span className="text-ink">{r.title}</span>
          </>
        )}
        {mayResolve && (
          <>
            {" · "}
            <TextButton aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
              {isOpen ? "Not now" : r.workId === null ? "Find its work" : "Another work"}
            </TextButton>
          </>
        )}
        {r.resolution?.mayUndo && (
          <>
            {" · "}
            <TextButton onClick={() => r.resolution && undo.mutate(r.resolution.id)}>Undo</TextButton>
          </>
        )}
      </p>
      {isOpen && (
        <div className="col-span-2">
          <ChooseWork reviewId={reviewId} reference={r} close={() => setOpen(false)} />
        </div>
      )}
    </li>
  );
}
