import { useState } from "react";
import type { Dto } from "../../api/client";
import { count } from "../../ui/numbers";
import { TextButton } from "../../ui/TextButton";
import { EntrySheet } from "../entry/EntrySheet";
import { Part } from "./Part";
import { RecordsSheet } from "./RecordsSheet";

/** The records that describe a work, what tells them apart, and why they were joined. */
export function Records({ reviewId, work }: { reviewId: number; work: Dto<"WorkDto"> }) {
  const [comparing, setComparing] = useState(false);
  const [entry, setEntry] = useState<number | null>(null);
  return (
    <Part title={work.records.length === 1 ? "One record describes it" : `${work.records.length} records describe it`}>
      <p className="mb-1.5">
        <TextButton onClick={() => setComparing(true)}>
          {work.records.length === 1 ? "Show its fields" : "Compare them side by side"}
        </TextButton>
      </p>
      <RecordsSheet workId={work.id} open={comparing} close={() => setComparing(false)} />
      {entry !== null && <EntrySheet reviewId={reviewId} entryId={entry} close={() => setEntry(null)} />}
      <ul className="space-y-1.5">
        {work.records.map((r) => (
          <li key={r.id}>
            <b className="font-semibold">{r.database}</b>{" "}
            <span className="text-quiet">
              {r.identifier} · {r.year ?? "no year"}
              {r.version && ` · ${r.version}`}
              {r.cited !== null && ` · citations: ${count(r.cited)}`}
            </span>
            {r.entryId !== null && (
              <TextButton className="ml-1.5" onClick={() => setEntry(r.entryId)}>
                Open the entry
              </TextButton>
            )}
            {r.title !== work.title.text && (
              <span className="block font-serif text-[13px]">“{r.titleIsTranslated ? `[${r.title}]` : r.title}”</span>
            )}
            {r.notes.map((n) => (
              <span key={n} className="block text-quiet">
                {n}
              </span>
            ))}
          </li>
        ))}
      </ul>
      {work.evidence.length > 0 && (
        <p className="mt-1.5 text-quiet">Joined by {[...new Set(work.evidence.flatMap((e) => e.for))].join("; ")}.</p>
      )}
    </Part>
  );
}
