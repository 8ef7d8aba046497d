import type { Dto } from "../../api/client";
import { StageMark } from "../../ui/StageMark";
import { moment } from "../../ui/numbers";

/** What the review decided on it, by whom and when, and its tags. */
export function Judgement({ of: judgement }: { of: Dto<"WorkDto">["judgement"] }) {
  return (
    <>
      {judgement.stage !== "Found" && (
        <p className="mt-3 flex items-center gap-2 text-[12.5px]">
          <StageMark stage={judgement.stage} />
          <span>
            {judgement.stage === "Kept" ? "Kept" : `Set aside: ${judgement.reason ?? ""}`}
            <span className="text-quiet">
              {judgement.by && `, by ${judgement.by}`}
              {judgement.at && `, ${moment(judgement.at)}`}
            </span>
          </span>
        </p>
      )}
      {judgement.tags.length > 0 && (
        <p className="mt-2 flex flex-wrap gap-1.5">
          {judgement.tags.map((t) => (
            <span key={t} className="rounded bg-soft px-1.5 text-[12px]">
              {t}
            </span>
          ))}
        </p>
      )}
    </>
  );
}
