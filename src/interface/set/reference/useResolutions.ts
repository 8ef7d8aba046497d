import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, read, type Dto } from "../../api/client";
import { useSay, useSayFault } from "../../ui/Toasts";

export type CitedReference = Dto<"CitedReferenceDto">;
export type ListedAt = Dto<"ListedAtDto">;

const path = (reviewId: number) => ({ params: { path: { reviewId } } });

/** The works that a reference may mean, by its print or by what a person typed instead. */
export const useChoices = (reviewId: number, listed: readonly ListedAt[], text: string | null) =>
  useQuery({
    queryKey: ["review", reviewId, "choices", listed, text],
    queryFn: () =>
      read(
        api.POST("/api/reviews/{reviewId}/references/choices", {
          ...path(reviewId),
          body: { listed: [...listed], text },
        }),
      ),
  });

/** Takes back what was said of a reference. */
export function useUndoResolution(reviewId: number) {
  const client = useQueryClient();
  const say = useSay();
  return useMutation({
    mutationFn: (resolutionId: number) =>
      read(
        api.DELETE("/api/reviews/{reviewId}/resolutions/{resolutionId}", {
          params: { path: { reviewId, resolutionId } },
        }),
      ),
    onSuccess: () => {
      void client.invalidateQueries();
      say("Undone. The reference is as it was.");
    },
    onError: useSayFault(),
  });
}

/** Says that a reference means a work, wherever it is printed; it can be taken back from the line that says so. */
export function useResolve(reviewId: number) {
  const client = useQueryClient();
  const say = useSay();
  const undo = useUndoResolution(reviewId);
  return useMutation({
    mutationFn: ({ listed, workId }: { listed: readonly ListedAt[]; workId: number }) =>
      read(
        api.POST("/api/reviews/{reviewId}/resolutions", { ...path(reviewId), body: { listed: [...listed], workId } }),
      ),
    onSuccess: ({ id }) => {
      void client.invalidateQueries();
      say("Matched. Trails count it from now on.", { label: "Undo", run: () => undo.mutate(id) });
    },
    onError: useSayFault(),
  });
}
