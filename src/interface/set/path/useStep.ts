import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, read } from "../../api/client";
import type { StepAct } from "../useSet";

/** Two steps held against each other: what both find, what only one finds. */
export const useAgainst = (reviewId: number, here: number, there: number) =>
  useQuery({
    queryKey: ["review", reviewId, "against", here, there],
    queryFn: () =>
      read(
        api.GET("/api/reviews/{reviewId}/steps/{stepId}/against/{otherId}", {
          params: { path: { reviewId, stepId: here, otherId: there } },
        }),
      ),
  });

/** Writes a step anew where it stands. */
export function useChangeStep(reviewId: number, stepId: number, onChanged: () => void) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (act: StepAct) =>
      read(
        api.PUT("/api/reviews/{reviewId}/steps/{stepId}", { params: { path: { reviewId, stepId } }, body: { act } }),
      ),
    onSuccess: async () => {
      onChanged();
      await client.invalidateQueries({ queryKey: ["review", reviewId] });
    },
  });
}
