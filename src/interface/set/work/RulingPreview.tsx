import type { Dto } from "../../api/client";
import { Button } from "../../ui/Button";
import { Fault } from "../../ui/Fault";
import { useRule, useRulingPreview, type Ruling } from "./useRecords";

/** What a split or a join would make of the works, with the act itself beneath. */
export function RulingPreview({ ruling, leave }: { ruling: Ruling; leave: () => void }) {
  const preview = useRulingPreview(ruling);
  const rule = useRule(leave);
  const word = "split" in ruling ? "Split them off" : "Join into one work";
  return (
    <section aria-label="Preview" className="mt-3 rounded-md border border-line bg-raised p-3 text-[12.5px]">
      {preview.isError && <Fault error={preview.error} />}
      {preview.data && (
        <>
          <p className="font-semibold">
            {preview.data.works.length === 1
              ? "The result would be one work:"
              : `The result would be ${preview.data.works.length} works:`}
          </p>
          <ol className="mt-1.5 space-y-1.5">
            {preview.data.works.map((w) => (
              <Outcome key={w.records.join()} work={w} />
            ))}
          </ol>
          <p className="mt-2 text-quiet">
            Decisions, tags and texts stay with the work that keeps its number. Later harvests respect this; it can be
            undone.
          </p>
        </>
      )}
      <p className="mt-3 flex gap-2">
        <Button kind="primary" disabled={!preview.data || rule.isPending} onClick={() => rule.mutate(ruling)}>
          {word}
        </Button>
        <Button onClick={leave}>Cancel</Button>
      </p>
    </section>
  );
}

function Outcome({ work }: { work: Dto<"OutcomeDto"> }) {
  return (
    <li className="border-l-2 border-edge pl-2.5">
      <span className="font-serif text-[13.5px]">{work.title || "Without a title"}</span>
      {work.isNew && <span className="ml-1.5 text-quiet">a work of its own</span>}
      <span className="block text-quiet">{work.records.join(" · ")}</span>
    </li>
  );
}
