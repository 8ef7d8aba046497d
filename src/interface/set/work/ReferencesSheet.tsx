import { useState } from "react";
import type { Dto } from "../../api/client";
import { Button } from "../../ui/Button";
import { Fault } from "../../ui/Fault";
import { Sheet } from "../../ui/Sheet";
import { count } from "../../ui/numbers";
import { useReview } from "../../review/useReviews";
import { ReferenceLine } from "../reference/ReferenceLine";
import { useReferences } from "../useWork";
import { useSeek } from "./useGather";
import { TextButton } from "../../ui/TextButton";

/** The references of a work as its databases print them, each with the work it means and why, or that no record fits. */
export function ReferencesSheet({ reviewId, work }: { reviewId: number; work: Dto<"WorkDto"> }) {
  const [open, setOpen] = useState(false);
  const found = useReferences(reviewId, work.id, open);
  const mayResolve = useReview(reviewId).data?.role !== "Reader";
  const all = found.data?.references ?? [];
  const works = [...new Set(all.flatMap((r) => r.workId ?? []))];
  const seek = useSeek(reviewId);
  return (
    <p className="mt-4 border-t border-line pt-2 text-[12.5px]">
      <TextButton onClick={() => setOpen(true)}>References</TextButton>
      <Sheet
        open={open}
        onOpenChange={setOpen}
        width={820}
        title={
          found.data && all.length > 0
            ? `${count(all.length)} ${all.length === 1 ? "reference" : "references"}, ${count(found.data.matched)} matched to works here`
            : "References"
        }
        {...(all.length > 0
          ? {
              hint: work.citesByText
                ? "No record lists the references of this work; they were read from its text. Each with the work it was matched to and why."
                : "Each reference as the most complete database prints it, with the work it was matched to and why.",
            }
          : {})}
      >
        {mayResolve && works.length > 0 && (
          <p className="mb-2 flex justify-end">
            <Button onClick={() => seek.mutate({ works, again: true })} disabled={seek.isPending}>
              Gather the texts of these {count(works.length)} works
            </Button>
          </p>
        )}
        {found.error && <Fault error={found.error} />}
        {found.data && all.length === 0 && (
          <p className="text-quiet">
            No database has the references of this work. When its text is gathered, they are read from it.
          </p>
        )}
        <ol className="divide-y divide-line border-y border-line empty:border-0">
          {all.map((r, i) => (
            <ReferenceLine key={i} reviewId={reviewId} reference={r} mayResolve={mayResolve} />
          ))}
        </ol>
      </Sheet>
    </p>
  );
}
