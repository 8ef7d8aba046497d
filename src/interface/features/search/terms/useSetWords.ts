import { useQuery } from "@tanstack/react-query";
import { api, read, type Dto } from "../../../api/client";

export type SetWords = Dto<"SetWordsDto">;
export type SetTerm = Dto<"SetTermDto">;

/** The words that the set in view of a step uses. */
export const useSetWords = (reviewId: number, stepId: number) =>
  useQuery({
    queryKey: ["review", reviewId, "set-words", stepId],
    queryFn: ({ signal }) =>
      read(api.GET("/api/reviews/{reviewId}/steps/{stepId}/words", { params: { path: { reviewId, stepId } }, signal })),
    staleTime: 60_000,
  });

/** The same as a table for spreadsheets. */
export const setWordsTable = (reviewId: number, stepId: number) => `/api/reviews/${reviewId}/steps/${stepId}/words.csv`;
