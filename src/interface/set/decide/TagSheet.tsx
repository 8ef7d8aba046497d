import { useState } from "react";
import { Button } from "../../ui/Button";
import { Sheet } from "../../ui/Sheet";
import { count } from "../../ui/numbers";
import { useReview } from "../../review/useReviews";
import { useWork } from "../useWork";
import type { Decide } from "./useDecisions";
import { Input } from "../../ui/Input";

/** Tags of one work: those of the review to tick, or a new one. */
export function TagSheet({
  open,
  close,
  reviewId,
  workId,
  stepId,
  decide,
}: {
  open: boolean;
  close: () => void;
  reviewId: number;
  workId: number;
  stepId: number;
  decide: Decide;
}) {
  const review = useReview(reviewId).data;
  const tags = useWork(reviewId, workId, stepId).data?.judgement.tags ?? [];
  const [fresh, setFresh] = useState("");
  return (
    <Sheet
      open={open}
      onOpenChange={close}
      title="Tags"
      hint="Tags sort the works of a review by subtopic, method, or anything that helps."
      width={400}
    >
      <form
        className="mb-3 flex gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          const tag = fresh.trim();
          if (tag === "") close();
          else decide.one(workId, "Tag", tag);
          setFresh("");
        }}
      >
        <Input
          aria-label="New tag"
          placeholder="A new tag"
          value={fresh}
          maxLength={120}
          onChange={(e) => setFresh(e.target.value)}
          className="h-8 min-w-0 flex-1"
        />
        <Button type="submit">{fresh.trim() === "" ? "Done" : "Add"}</Button>
      </form>
      <ul className="max-h-[240px] overflow-y-auto">
        {review?.tags.map((t) => (
          <li key={t.tag}>
            <label className="flex items-center gap-2 rounded px-1 py-1 hover:bg-mist">
              <input
                type="checkbox"
                checked={tags.includes(t.tag)}
                onChange={(e) => decide.one(workId, e.target.checked ? "Tag" : "Untag", t.tag)}
                className="accent-[var(--pine)]"
              />
              <span className="flex-1">{t.tag}</span>
              <span className="text-quiet">{count(t.count)}</span>
            </label>
          </li>
        ))}
      </ul>
    </Sheet>
  );
}
