import { useState } from "react";
import type { Dto } from "../../api/client";
import { Button } from "../../ui/Button";
import { Field } from "../../ui/Field";
import { works } from "../../ui/numbers";
import { FirstSteps } from "../../review/FirstSteps";
import { useChangeReview, useReview } from "../../review/useReviews";
import { NamedSearches } from "./NamedSearches";
import { usePaths, type Place } from "../../set/useSet";
import { Press } from "../../ui/Press";
import { TextButton } from "../../ui/TextButton";

/** What a new path begins with: the question, and the paths that are there. */
export function StartHere({
  place,
  onTry,
  onPaste,
}: {
  place: Place;
  onTry: (expression: string) => void;
  onPaste: () => void;
}) {
  const review = useReview(place.reviewId).data;
  const paths = usePaths(place.reviewId, true);
  return (
    <div className="min-h-0 flex-1 overflow-y-auto border-t border-line bg-raised px-[18px] py-8">
      <div className="mx-auto max-w-[760px]">
        <FirstSteps reviewId={place.reviewId} />
        {review && <Question key={review.question} review={review} />}
        <p className="text-[14px] text-quiet">
          Type a few words in the line above, or try one of these. While you type you see how they are read and how many
          works each part finds; Enter runs the search.
        </p>
        <dl className="mt-5 grid grid-cols-[auto_1fr] gap-x-5 gap-y-1 text-[13px]">
          {[
            ["moth* AND pollinat*", "both, with any ending"],
            ['"street lighting" OR skyglow', "a phrase, or the other word"],
            ["lamp* NEAR/5 moth*", "at most five words between, in either order"],
            ["title:bats NOT year:-1990", "a field; leaving out"],
          ].map(([example, meaning]) => (
            <div key={example} className="contents">
              <dt>
                <TextButton
                  onClick={() => onTry(example ?? "")}
                  title="Put it into the search line"
                  className="text-left font-semibold"
                >
                  {example}
                </TextButton>
              </dt>
              <dd className="text-quiet">{meaning}</dd>
            </div>
          ))}
        </dl>
        <p className="mt-5 text-[13px] text-quiet">
          You have references already?{" "}
          <TextButton onClick={onPaste} className="font-semibold text-ink">
            Paste a list
          </TextButton>{" "}
          and see which of them are in these databases.
        </p>
        <NamedSearches place={place} />
        {(paths.data?.length ?? 0) > 0 && (
          <section className="mt-8">
            <h2 className="mb-2 font-serif text-[16px] font-semibold">Paths in this review</h2>
            <ul className="divide-y divide-line border-y border-line">
              {paths.data?.map((p) => (
                <li key={p.id}>
                  <Press
                    className="flex w-full justify-between gap-6 px-1 py-2 text-left hover:bg-mist"
                    onClick={() => place.change({ step: String(p.id) })}
                  >
                    <span className="truncate">{p.label}</span>
                    <span className="whitespace-nowrap text-quiet">{works(p.count)}</span>
                  </Press>
                </li>
              ))}
            </ul>
          </section>
        )}
      </div>
    </div>
  );
}

/** The question of the review: shown when it is written, else asked for right here. */
function Question({ review }: { review: Dto<"ReviewDto"> }) {
  const [text, setText] = useState("");
  const change = useChangeReview(review.id);
  if (review.question)
    return (
      <p className="mb-6 border-l-[3px] border-pine pl-4 font-serif text-[18px] leading-snug">{review.question}</p>
    );
  if (review.role !== "Owner") return null;
  return (
    <form
      className="mb-7 flex items-end gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        change.mutate({ title: null, question: text, bandLow: null, bandHigh: null });
      }}
    >
      <Field
        label="What does this review ask?"
        value={text}
        maxLength={2000}
        onChange={(e) => setText(e.target.value)}
        className="flex-1"
      />
      <Button type="submit" className="h-9" disabled={text.trim() === "" || change.isPending}>
        Write it down
      </Button>
    </form>
  );
}
