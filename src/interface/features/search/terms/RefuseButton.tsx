import { TextButton } from "../../../ui/TextButton";
import { useRefuse } from "./useTerms";

/** Takes a term off the offers of the review. */
export function RefuseButton({ reviewId, term }: { reviewId: number; term: string }) {
  const refuse = useRefuse(reviewId);
  return (
    <TextButton
      className="min-h-6"
      onClick={() => refuse.mutate({ text: term, isRefused: true })}
      title="Do not offer it again in this review"
    >
      refuse
    </TextButton>
  );
}
