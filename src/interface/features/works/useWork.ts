import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api, read } from "../../api/client";

/** Everything about one work, its words marked by the question of a step. */
export const useWork = (reviewId: number, workId: number | null, stepId: number) =>
  useQuery({
    queryKey: ["review", reviewId, "work", workId, stepId],
    queryFn: () =>
      read(
        api.GET("/api/reviews/{reviewId}/works/{workId}", {
          params: { path: { reviewId, workId: workId ?? 0 }, query: { stepId } },
        }),
      ),
    enabled: workId !== null,
    placeholderData: keepPreviousData,
  });
