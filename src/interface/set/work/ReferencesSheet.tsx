import { useState } from "react";
import type { Dto } from "../../api/client";
import { Fault } from "../../ui/Fault";
import { Sheet } from "../../ui/Sheet";
import { count } from "../../ui/numbers";
import { useReferences } from "../useWork";
import { TextButton } from "../../ui/TextButton";

/** The references of a work as its databases print them, each with the work it means and why, or that no record fits. */
export function ReferencesSheet({ reviewId, work }: { reviewId: number; work: Dto<"WorkDto"> }) {
  const [open, setOpen] = useState(false);
  const found = useReferences(reviewId, work.id, open);
  const all = found.data?.references ?? [];
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
          ? { hint: "Each reference as the most complete database prints it, with the work it was matched to and why." }
          : {})}
      >
        {found.error && <Fault error={found.error} />}
        {found.data && all.length === 0 && <p className="text-quiet">No database has the references of this work.</p>}
        <ol className="divide-y divide-line border-y border-line empty:border-0">
          {all.map((r, i) => (
            <li key={i} className="py-2">
              <p className="font-serif text-[14px] leading-snug break-words">{r.text || r.doi}</p>
              <p className="text-[12px] text-quiet">
                in {r.databases.join(", ")}
                {r.workId === null ? (
                  <> · no matching record; not counted in trails</>
                ) : (
                  <>
                    {" "}
                    · by {r.evidence}
                    {r.sure < 0.95 && <> ({Math.round(r.sure * 100)} in 100)</>}:{" "}
                    <span className="text-ink">{r.title}</span>
                  </>
                )}
              </p>
            </li>
          ))}
        </ol>
      </Sheet>
    </p>
  );
}
