import { keepPreviousData, useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback } from "react";
import { useNavigate } from "react-router";
import { api, read } from "../api/client";
import { useSayFault } from "../ui/Toasts";
import type { StepAct, TrailWay } from "./useSet";

/** Follows trails from works (null for all kept ones) and goes there; a stretch of years is a second step. */
export type Follow = (
  seeds: number[] | null,
  way: TrailWay,
  years?: { from: number | null; to: number | null },
) => void;

/** Makes a {@link Follow}. */
export function useFollow(reviewId: number): Follow {
  const navigate = useNavigate();
  const client = useQueryClient();
  const fault = useSayFault();
  return useCallback(
    (seeds, way, years) => {
      const take = (parentId: number, act: StepAct) =>
        read(api.POST("/api/reviews/{reviewId}/steps", { params: { path: { reviewId } }, body: { parentId, act } }));
      const go = async () => {
        let { stepId } = await take(0, { kind: "Trail", seeds, way });
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

/** Seeds and sides of a trail. */
export const useTrail = (reviewId: number, stepId: number, enabled: boolean) =>
  useQuery({
    queryKey: ["review", reviewId, "trail", stepId],
    queryFn: () => read(api.GET("/api/reviews/{reviewId}/steps/{stepId}/trail", path(reviewId, stepId))),
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
