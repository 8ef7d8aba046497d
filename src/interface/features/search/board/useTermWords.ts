import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api, read } from "../../../api/client";

/** A truncated term where it is asked: its field, the step before it, and the words that are not meant. */
interface Term {
  stepId: number;
  term: string;
  scope: string;
  notMeant: readonly string[];
}

/** The words a truncated term stands for, with how many works each brings. */
export const useTermWords = (reviewId: number, { stepId, term, scope, notMeant }: Term) =>
  useQuery({
    queryKey: ["review", reviewId, "words", stepId, term, scope, notMeant],
    queryFn: () =>
      read(
        api.POST("/api/reviews/{reviewId}/reading/words", {
          params: { path: { reviewId } },
          body: { text: term, scope, stepId, notMeant: [...notMeant] },
        }),
      ),
    placeholderData: keepPreviousData,
  });
