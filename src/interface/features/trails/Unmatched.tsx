import { useState } from "react";
import { Sheet } from "../../ui/Sheet";
import type { Dto } from "../../api/client";
import { count } from "../../ui/numbers";
import { useReview } from "../../review/useReviews";
import { ReferenceLine } from "../../set/reference/ReferenceLine";
import type { Place } from "../../set/useSet";
import { SeedMark } from "./TieMarks";
import { useUnmatched } from "../../set/useTrail";
import { Press } from "../../ui/Press";
import { barButton } from "../../ui/Button";

/** References of the seeds that match no record, with their printed text. */
export function Unmatched({ place, seeds }: { place: Place; seeds: number }) {
  const [open, setOpen] = useState(false);
  const found = useUnmatched(place.reviewId, place.stepId, true);
  const total = found.data?.total ?? 0;
  const resolved = found.data?.resolved ?? [];
  const mayResolve = useReview(place.reviewId).data?.role !== "Reader";
  if (total === 0 && resolved.length === 0) return null;
  const line = ({ reference, seeds: its }: Dto<"SeedReferenceDto">) => {
    const at = reference.listed[0];
    return (
      <ReferenceLine
        key={`${at?.record}.${at?.ordinal}`}
        reviewId={place.reviewId}
        reference={reference}
        mayResolve={mayResolve}
        beside={seeds > 1 && its.slice(0, 8).map((n) => <SeedMark key={n} n={n} />)}
      />
    );
  };
  return (
    <>
      <Press
        className={barButton}
        onClick={() => setOpen(true)}
        title="References that match no record in the databases"
      >
        unmatched <b className="font-semibold text-ink">{count(total)}</b>
      </Press>
      <Sheet
        open={open}
        onOpenChange={setOpen}
        width={760}
        title={`${count(total)} ${total === 1 ? "reference matches" : "references match"} no record`}
        hint={
          "Shown as printed. They are not counted in this trail until a matching record is harvested, " +
          "or you find their work."
        }
      >
        <ol className="divide-y divide-line border-y border-line empty:border-0">{found.data?.references.map(line)}</ol>
        {found.data && found.data.references.length < total && (
          <p className="mt-3 text-quiet">
            The first {count(found.data.references.length)} are shown; take fewer seeds to see the rest.
          </p>
        )}
        {resolved.length > 0 && (
          <section aria-label="Matched by people">
            <h3 className="mt-5 mb-1 text-[13px] font-semibold">
              Matched by people <span className="tabular-nums">{count(resolved.length)}</span>
            </h3>
            <ol className="divide-y divide-line border-y border-line">{resolved.map(line)}</ol>
          </section>
        )}
      </Sheet>
    </>
  );
}
