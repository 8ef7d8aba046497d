import { useState, type ReactNode } from "react";
import { NewEntrySheet } from "../../set/entry/NewEntrySheet";
import { emptyEntry, type EntryFields } from "../../set/entry/useEntries";
import { useCiteMore, useReferencesTo } from "./usePlan";

/** Plans a paper on the map: a custom entry that cites the picked works, and more of them later. */
export function usePlanning(
  reviewId: number,
  onPlanned: (workId: number) => void,
): {
  /** Begins with works that it is to cite; none are fine. */
  begin: (works: readonly number[]) => void;
  /** Lets an entry cite more works. */
  citeMore: (entryId: number, works: readonly number[]) => void;
  /** The form, while it is filled in. */
  sheet: ReactNode;
} {
  const [start, setStart] = useState<EntryFields | null>(null);
  const references = useReferencesTo(reviewId, (cited) =>
    setStart({ ...emptyEntry, type: "manuscript", year: String(new Date().getFullYear()), references: cited }),
  );
  const more = useCiteMore(reviewId);
  return {
    begin: (works) => references.mutate(works),
    citeMore: (entryId, works) => more.mutate({ entryId, works }),
    sheet: start && (
      <NewEntrySheet
        reviewId={reviewId}
        start={start}
        title="A planned paper"
        hint="A custom entry: everyone who uses this Zendle can find it. What it is to cite stands in the last field."
        close={() => setStart(null)}
        onAdded={onPlanned}
      />
    ),
  };
}
