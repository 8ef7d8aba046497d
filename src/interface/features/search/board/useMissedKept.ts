import { useQuery } from "@tanstack/react-query";
import { api, read } from "../../../api/client";

/** The kept works that a line does not find, and through which of its parts. */
export const useMissedKept = (reviewId: number, stepId: number, line: string) =>
  useQuery({
    queryKey: ["review", reviewId, "missed", stepId, line],
    queryFn: () =>
      read(
        api.POST("/api/reviews/{reviewId}/reading/missed", {
          params: { path: { reviewId } },
          body: { text: line, stepId },
        }),
      ),
  });
