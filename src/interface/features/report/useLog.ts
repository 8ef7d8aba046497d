import { keepPreviousData, useInfiniteQuery, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { api, read } from "../../api/client";
import { useSayFault } from "../../ui/Toasts";

/** The search log, youngest first, page by page. */
export const useLog = (reviewId: number, ofRecord: boolean) =>
  useInfiniteQuery({
    queryKey: ["review", reviewId, "log", ofRecord],
    queryFn: ({ pageParam }) =>
      read(
        api.GET("/api/reviews/{reviewId}/log", {
          params: { path: { reviewId }, query: { ofRecord, ...(pageParam === null ? {} : { before: pageParam }) } },
        }),
      ),
    initialPageParam: null as number | null,
    getNextPageParam: (last) => (last.hasEarlier ? (last.runs.at(-1)?.id ?? null) : null),
    placeholderData: keepPreviousData,
  });

/** Marks a run as of record, or as exploration. */
export function useMarkRun(reviewId: number) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ runId, ofRecord }: { runId: number; ofRecord: boolean }) =>
      read(
        api.PATCH("/api/reviews/{reviewId}/log/{runId}", { params: { path: { reviewId, runId } }, body: { ofRecord } }),
      ),
    onSuccess: () => client.invalidateQueries({ queryKey: ["review", reviewId, "log"] }),
    onError: useSayFault(),
  });
}

/** Runs a logged search again and goes to where it leads. */
export function useRunAgain(reviewId: number) {
  const navigate = useNavigate();
  const client = useQueryClient();
  return useMutation({
    mutationFn: (runId: number) =>
      read(api.POST("/api/reviews/{reviewId}/log/{runId}/again", { params: { path: { reviewId, runId } } })),
    onSuccess: ({ stepId }) => {
      void client.invalidateQueries({ queryKey: ["review", reviewId] });
      void navigate(`/r/${reviewId}/search?step=${stepId}`);
    },
    onError: useSayFault(),
  });
}

/** What was sought, got, and not got by reason. */
export const useTextAccount = (reviewId: number) =>
  useQuery({
    queryKey: ["review", reviewId, "gather", "account"],
    queryFn: () => read(api.GET("/api/reviews/{reviewId}/report/texts", { params: { path: { reviewId } } })),
  });

/** Requests to other libraries, counted. */
export const useLoanAccount = (reviewId: number) =>
  useQuery({
    queryKey: ["review", reviewId, "gather", "loans", "account"],
    queryFn: () => read(api.GET("/api/reviews/{reviewId}/report/loans", { params: { path: { reviewId } } })),
  });
