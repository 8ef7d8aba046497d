import { useQuery } from "@tanstack/react-query";
import { api, read } from "../../api/client";

const path = (reviewId: number, stepId: number) => ({ path: { reviewId, stepId } });

/** What shows in the citations of a set: main line, sleeping papers, retracted works that are still cited. */
export const useOutline = (reviewId: number, stepId: number) =>
  useQuery({
    queryKey: ["review", reviewId, "outline", stepId],
    queryFn: () => read(api.GET("/api/reviews/{reviewId}/steps/{stepId}/outline", { params: path(reviewId, stepId) })),
  });

/** The works of a set that are tied to works of two tags; nothing is asked for until both are chosen. */
export const useBridges = (reviewId: number, stepId: number, first: string, second: string) =>
  useQuery({
    queryKey: ["review", reviewId, "bridges", stepId, first, second],
    queryFn: () =>
      read(
        api.GET("/api/reviews/{reviewId}/steps/{stepId}/bridges", {
          params: { ...path(reviewId, stepId), query: { first, second } },
        }),
      ),
    enabled: first !== "" && second !== "" && first !== second,
  });
