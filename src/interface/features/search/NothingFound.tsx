import { useState } from "react";
import { Button } from "../../ui/Button";
import { useReview } from "../../review/useReviews";
import { NewEntrySheet } from "../../set/entry/NewEntrySheet";
import { TextButton } from "../../ui/TextButton";
import type { Place } from "../../set/useSet";

/** What stands in place of an empty list: why it is empty, and the next useful act. */
export function NothingFound({ place, onSearchNew }: { place: Place; onSearchNew: () => void }) {
  const [adding, setAdding] = useState(false);
  const mayAdd = useReview(place.reviewId).data?.role !== "Reader";
  return (
    <div className="p-8">
      <p className="mb-1 font-serif text-[17px]">
        {place.hideJudged ? "Every work in this set has been judged." : "No work matches all of this."}
      </p>
      <p className="mb-4 max-w-[60ch] text-quiet">
        {place.hideJudged
          ? "Show them, or start another search."
          : "The board (B) shows what each part finds on its own. Loosen the part that finds least, " +
            "or go back to any step of the path."}
      </p>
      <div className="flex gap-2">
        {place.hideJudged ? (
          <Button onClick={() => place.change({ judged: null })}>Show judged works</Button>
        ) : (
          <Button onClick={() => window.history.back()}>Back to the previous step</Button>
        )}
        <Button onClick={onSearchNew}>A new search</Button>
      </div>
      {!place.hideJudged && mayAdd && (
        <p className="mt-5 text-[13px] text-quiet">
          You know a work that no database has?{" "}
          <TextButton className="font-semibold text-ink" onClick={() => setAdding(true)}>
            Add it as a custom entry
          </TextButton>
          .
        </p>
      )}
      {adding && (
        <NewEntrySheet
          reviewId={place.reviewId}
          close={() => setAdding(false)}
          onShow={(work) => place.change({ work: String(work) })}
        />
      )}
    </div>
  );
}
