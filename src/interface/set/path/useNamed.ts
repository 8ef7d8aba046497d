import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, read, type Dto } from "../../api/client";
import { useSayFault } from "../../ui/Toasts";
import type { Place } from "../useSet";

/** The searches of a review that bear a name. */
export const useNamedSearches = (reviewId: number, enabled = true) =>
  useQuery({
    queryKey: ["review", reviewId, "named"],
    queryFn: () => read(api.GET("/api/reviews/{reviewId}/searches", { params: { path: { reviewId } } })),
    enabled,
  });

/** Runs a named search again; what is new comes into view. */
export function useRunNamed(place: Place, told: (ran: Dto<"RanAgainDto">) => void) {
  const client = useQueryClient();
  const fault = useSayFault();
  return useMutation({
    mutationFn: (stepId: number) =>
      read(
        api.POST("/api/reviews/{reviewId}/searches/{stepId}/again", {
          params: { path: { reviewId: place.reviewId, stepId } },
        }),
      ),
    onSuccess: (ran) => {
      told(ran);
      if (ran.newStepId !== null) place.change({ step: String(ran.newStepId), work: null });
      void client.invalidateQueries({ queryKey: ["review", place.reviewId] });
    },
    onError: fault,
  });
}
