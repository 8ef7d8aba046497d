import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { api, read, type Dto } from "../../api/client";
import { useSayFault } from "../../ui/Toasts";

/** The variants of a name that are ticked. */
export interface Variants {
  name: string;
  persons: readonly string[];
  printed: readonly string[];
}

/** Whom a name may stand for, with counts; null asks for nobody. */
export const useCitedNames = (reviewId: number, name: string | null) =>
  useQuery({
    queryKey: ["review", reviewId, "cited-names", name],
    queryFn: () =>
      read(
        api.GET("/api/reviews/{reviewId}/cited-names", {
          params: { path: { reviewId }, query: { name: name ?? "" } },
        }),
      ),
    enabled: name !== null && name !== "",
  });

/** How many works cite the variants that are ticked. */
export const useCitersCount = (reviewId: number, { name, persons, printed }: Variants) =>
  useQuery({
    queryKey: ["review", reviewId, "citers-count", name, persons, printed],
    queryFn: ({ signal }) =>
      read(
        api.POST("/api/reviews/{reviewId}/cited-names/count", {
          params: { path: { reviewId } },
          body: { name, persons: [...persons], printed: [...printed] },
          signal,
        }),
      ),
    enabled: persons.length + printed.length > 0,
    placeholderData: keepPreviousData,
  });

/** With, without and only self-citations: how many works a step has of each. */
export const useStepCiters = (reviewId: number, stepId: number) =>
  useQuery({
    queryKey: ["review", reviewId, "citers", stepId],
    queryFn: () =>
      read(api.GET("/api/reviews/{reviewId}/steps/{stepId}/citers", { params: { path: { reviewId, stepId } } })),
    placeholderData: keepPreviousData,
  });

/** Begins a path with the works that cite a name, and goes there. */
export function useShowCiters(reviewId: number) {
  const navigate = useNavigate();
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ name, persons, printed }: Variants) =>
      read(
        api.POST("/api/reviews/{reviewId}/steps", {
          params: { path: { reviewId } },
          body: { parentId: 0, act: { kind: "Citers", name, persons: [...persons], printed: [...printed] } },
        }),
      ),
    onSuccess: ({ stepId }: Dto<"StepTakenDto">) => {
      void client.invalidateQueries({ queryKey: ["review", reviewId, "path"] });
      void navigate(`/r/${reviewId}/search?step=${stepId}`);
    },
    onError: useSayFault(),
  });
}
