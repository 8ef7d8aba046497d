import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useMemo, useRef } from "react";
import { api, read, type Dto } from "../api/client";
import { useSayFault } from "../ui/Toasts";
import type { Place } from "./useSet";

/** The rounds of a review, and what they say of what is missing. */
export const useRounds = (reviewId: number) =>
  useQuery({
    queryKey: ["review", reviewId, "rounds"],
    queryFn: () => read(api.GET("/api/reviews/{reviewId}/rounds", { params: { path: { reviewId } } })),
    placeholderData: keepPreviousData,
  });

/** Begins a round and goes to its candidates. */
export function useBeginRound(place: Place) {
  const client = useQueryClient();
  const fault = useSayFault();
  const { reviewId } = place;
  return useMutation({
    mutationFn: (round: Dto<"NewRoundRequest">) =>
      read(api.POST("/api/reviews/{reviewId}/rounds", { params: { path: { reviewId } }, body: round })),
    onSuccess: async ({ stepId }) => {
      place.change({ step: String(stepId), work: null, say: null });
      await client.invalidateQueries({ queryKey: ["review", reviewId, "rounds"] });
    },
    onError: fault,
  });
}

const none: readonly number[] = [];

/** The works of a round that the person looked at; whoever goes on from a work that was open has looked at it. */
export function useLooked(
  reviewId: number,
  stepId: number,
  workId: number | null,
  isRound: boolean,
): ReadonlySet<number> {
  const client = useQueryClient();
  const queryKey = useMemo(() => ["review", reviewId, "looked", stepId], [reviewId, stepId]);
  const looked = useQuery({
    queryKey,
    queryFn: () =>
      read(api.GET("/api/reviews/{reviewId}/steps/{stepId}/looked", { params: { path: { reviewId, stepId } } })),
    enabled: isRound,
  });
  const before = useRef<number | null>(null);
  useEffect(() => {
    const last = before.current;
    before.current = isRound ? workId : null;
    if (!isRound || last === null || last === workId) return;
    client.setQueryData(queryKey, (all: readonly number[] | undefined) => [...(all ?? []), last]);
    void api
      .POST("/api/reviews/{reviewId}/looked", { params: { path: { reviewId } }, body: { works: [last] } })
      .then(() => client.invalidateQueries({ queryKey: ["review", reviewId, "rounds"] }))
      .catch(() => undefined);
  }, [client, queryKey, reviewId, workId, isRound]);
  const works = looked.data ?? none;
  return useMemo(() => new Set(works), [works]);
}
