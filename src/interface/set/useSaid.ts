import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api, read } from "../api/client";

/** What the gathered texts in view of a trail say of its seeds; asked for where a trail leads forward. */
export const useSaidOfSeeds = (reviewId: number, stepId: number, shown: boolean) =>
  useQuery({
    queryKey: ["review", reviewId, "said-of-seeds", stepId],
    queryFn: () =>
      read(api.GET("/api/reviews/{reviewId}/steps/{stepId}/said", { params: { path: { reviewId, stepId } } })),
    enabled: shown,
    placeholderData: keepPreviousData,
  });

/** What gathered texts say of a work. */
export const useSaidOfWork = (reviewId: number, workId: number) =>
  useQuery({
    queryKey: ["review", reviewId, "said", workId],
    queryFn: () =>
      read(api.GET("/api/reviews/{reviewId}/works/{workId}/said", { params: { path: { reviewId, workId } } })),
  });
