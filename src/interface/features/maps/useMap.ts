import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, read, type Dto } from "../../api/client";
import { useSayFault } from "../../ui/Toasts";

export type LaneField = NonNullable<Dto<"LaneField">>;
export type LaneOrder = NonNullable<Dto<"LaneOrder">>;
export type MapAlong = NonNullable<Dto<"MapAlong">>;
export type MapSize = NonNullable<Dto<"MapSize">>;
export type MapOf = Dto<"MapDto">;
export type MapColour = NonNullable<Dto<"MapColour">>;
export type MapLook = Dto<"MapLook">;
export type MapWork = Dto<"MapWorkDto">;

/** What one chooses to see: it stands in the address. */
export interface Choice {
  lanes: LaneField;
  order: LaneOrder;
  along: MapAlong;
  size: MapSize;
  database: number;
  /** Whether every value has a lane of its own. */
  open: boolean;
  /** How many works beside the set are suggested. */
  suggest: number;
  /** The step it is held against; 0 for none. */
  against: number;
  /** The work, mostly a planned paper, whose citations are held against the set; 0 for none. */
  plan: number;
}

/** A map laid out for a width and a height in pixels. */
export const fetchMap = (
  reviewId: number,
  stepId: number,
  choice: Choice,
  frame: { width: number; height: number } | null,
  signal?: AbortSignal,
) =>
  read(
    api.GET("/api/reviews/{reviewId}/steps/{stepId}/map", {
      params: { path: { reviewId, stepId }, query: { ...choice, ...frame } },
      ...(signal && { signal }),
    }),
  );

/** The set in view as a map, laid out for a width and a height in pixels; null until it was measured. */
export const useMap = (
  reviewId: number,
  stepId: number,
  choice: Choice,
  frame: { width: number; height: number } | null,
  enabled: boolean,
) =>
  useQuery({
    queryKey: ["review", reviewId, "map", stepId, choice, frame],
    queryFn: ({ signal }) => fetchMap(reviewId, stepId, choice, frame, signal),
    enabled: enabled && frame !== null,
    placeholderData: keepPreviousData,
  });

/** Finds the topics of a map anew, among the works its set has today. */
export function useTopicsAnew(reviewId: number, stepId: number) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: () =>
      read(api.POST("/api/reviews/{reviewId}/steps/{stepId}/map/topics", { params: { path: { reviewId, stepId } } })),
    onSuccess: () => client.invalidateQueries({ queryKey: ["review", reviewId, "map", stepId] }),
    onError: useSayFault(),
  });
}
