import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { api, read } from "../api/client";

/** The references of a work as printed, with the works they mean; asked for when they are to be shown. */
export const useReferences = (reviewId: number, workId: number, shown: boolean) =>
  useQuery({
    queryKey: ["review", reviewId, "references", workId],
    queryFn: () =>
      read(api.GET("/api/reviews/{reviewId}/works/{workId}/references", { params: { path: { reviewId, workId } } })),
    enabled: shown,
  });

/** The book that a work is or stands in, with its chapters here; asked for of books and chapters. */
export const useBook = (reviewId: number, workId: number, asked: boolean) =>
  useQuery({
    queryKey: ["review", reviewId, "book", workId],
    queryFn: () =>
      read(api.GET("/api/reviews/{reviewId}/works/{workId}/book", { params: { path: { reviewId, workId } } })),
    enabled: asked,
  });

/** How the score by which a work stands in the list is made; asked for when it is to be shown. */
export const useScore = (reviewId: number, workId: number, stepId: number, shown: boolean) =>
  useQuery({
    queryKey: ["review", reviewId, "score", workId, stepId],
    queryFn: () =>
      read(
        api.GET("/api/reviews/{reviewId}/works/{workId}/score", {
          params: { path: { reviewId, workId }, query: { stepId } },
        }),
      ),
    enabled: shown,
  });

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
