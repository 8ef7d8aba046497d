import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback } from "react";
import { useNavigate } from "react-router";
import { api, read, type Dto } from "../api/client";
import { useSayFault } from "../ui/Toasts";
import type { StepAct, TrailWay } from "./useSet";

export type NeighbourKind = NonNullable<Dto<"NeighbourKind">>;

/** What seeds are followed to. */
export type Followed = TrailWay | "Neighbours";

/**
 * Follows trails from works (null for all kept ones), or asks for their neighbours, and goes there; a stretch of years is a
 * second step.
 */
export type Follow = (
  seeds: readonly number[] | null,
  way: Followed,
  more?: { years?: { from: number | null; to: number | null }; kind?: NeighbourKind | null },
) => void;

/** Makes a {@link Follow}. */
export function useFollow(reviewId: number): Follow {
  const navigate = useNavigate();
  const client = useQueryClient();
  const fault = useSayFault();
  return useCallback(
    (seeds, way, { years, kind = null } = {}) => {
      const take = (parentId: number, act: StepAct) =>
        read(api.POST("/api/reviews/{reviewId}/steps", { params: { path: { reviewId } }, body: { parentId, act } }));
      const go = async () => {
        const from = seeds && [...seeds];
        let { stepId } = await take(
          0,
          way === "Neighbours"
            ? { kind: "Neighbours", seeds: from, kinds: kind && [kind] }
            : { kind: "Trail", seeds: from, way },
        );
        if (years) ({ stepId } = await take(stepId, { kind: "Years", ...years }));
        await client.invalidateQueries({ queryKey: ["review", reviewId, "head"] });
        void navigate(`/r/${reviewId}/trails?step=${stepId}`);
      };
      go().catch(fault);
    },
    [reviewId, navigate, client, fault],
  );
}

const path = (reviewId: number, stepId: number) => ({ params: { path: { reviewId, stepId } } });

export type SeedOrder = NonNullable<Dto<"SeedOrder">>;

/** Seeds and sides of a trail. */
export const useTrail = (reviewId: number, stepId: number, seeds: SeedOrder, enabled: boolean) =>
  useQuery({
    queryKey: ["review", reviewId, "trail", stepId, seeds],
    queryFn: () =>
      read(
        api.GET("/api/reviews/{reviewId}/steps/{stepId}/trail", {
          params: { path: { reviewId, stepId }, query: { seeds } },
        }),
      ),
    enabled,
    placeholderData: keepPreviousData,
  });

/** References of the seeds that match no record. */
export const useUnmatched = (reviewId: number, stepId: number, enabled: boolean) =>
  useQuery({
    queryKey: ["review", reviewId, "unmatched", stepId],
    queryFn: () => read(api.GET("/api/reviews/{reviewId}/steps/{stepId}/unmatched", path(reviewId, stepId))),
    enabled,
  });

/** The neighbours of a step's seeds: their counts by kind and, where they are the list, its measures. */
export const useNeighbours = (reviewId: number, stepId: number, enabled: boolean) =>
  useQuery({
    queryKey: ["review", reviewId, "neighbours", stepId],
    queryFn: () => read(api.GET("/api/reviews/{reviewId}/steps/{stepId}/neighbours", path(reviewId, stepId))),
    enabled,
    placeholderData: keepPreviousData,
  });

/** What a work has in common with the seeds of a step. */
export const useEvidence = (reviewId: number, stepId: number, workId: number) =>
  useQuery({
    queryKey: ["review", reviewId, "evidence", stepId, workId],
    queryFn: () =>
      read(
        api.GET("/api/reviews/{reviewId}/steps/{stepId}/neighbours/{workId}", {
          params: { path: { reviewId, stepId, workId } },
        }),
      ),
  });

/** Sets what the reasons weigh in the joined order of neighbours; the lists are put in order anew. */
export function useWeights(reviewId: number) {
  const client = useQueryClient();
  const fault = useSayFault();
  return useMutation({
    mutationFn: (weights: Dto<"NeighbourWeights">) =>
      read(api.PUT("/api/reviews/{reviewId}/neighbour-weights", { params: { path: { reviewId } }, body: weights })),
    onSuccess: () =>
      Promise.all(
        ["works", "neighbours"].map((what) => client.invalidateQueries({ queryKey: ["review", reviewId, what] })),
      ),
    onError: fault,
  });
}
