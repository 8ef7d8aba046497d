import { useState } from "react";
import { Sheet } from "../../ui/Sheet";
import { count } from "../../ui/numbers";
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
  if (total === 0) return null;
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
          "Shown as printed. They are not counted in this trail. " +
          "When a matching record is harvested, the work joins the trail by itself."
        }
      >
        <ol className="divide-y divide-line border-y border-line">
          {found.data?.references.map((r, i) => (
            <li key={i} className="grid grid-cols-[minmax(0,1fr)_auto] gap-4 py-2">
              <p className="font-serif text-[14px] leading-snug break-words">
                {r.text}
                <span className="block font-sans text-[12px] text-quiet">in {r.databases.join(", ")}</span>
              </p>
              <span className="flex h-fit flex-wrap justify-end gap-[2px]">
                {seeds > 1 && r.seeds.slice(0, 8).map((n) => <SeedMark key={n} n={n} />)}
              </span>
            </li>
          ))}
        </ol>
        {found.data && found.data.references.length < total && (
          <p className="mt-3 text-quiet">
            The first {count(found.data.references.length)} are shown; take fewer seeds to see the rest.
          </p>
        )}
      </Sheet>
    </>
  );
}
