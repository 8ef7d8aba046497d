import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, read } from "../../api/client";
import { useSay, useSayFault } from "../../ui/Toasts";
import { works as worksSaid } from "../../ui/numbers";

/** The newest custom entries: what can be held against a set. */
export const useEntryNames = (reviewId: number) =>
  useQuery({
    queryKey: ["review", reviewId, "entries"],
    queryFn: () => read(api.GET("/api/reviews/{reviewId}/entries", { params: { path: { reviewId } } })),
  });

/** Works as references, one a line: as an entry cites them. */
async function referencesTo(reviewId: number, works: readonly number[]): Promise<string> {
  const { references } = await read(
    api.POST("/api/reviews/{reviewId}/cite", {
      params: { path: { reviewId } },
      body: { works: [...works], stepId: null, style: null, locale: null },
    }),
  );
  return references.map((r) => r.text.replaceAll(/\s+/g, " ").trim()).join("\n");
}

/** The references to some works, for a paper that is to cite them. */
export function useReferencesTo(reviewId: number, done: (references: string) => void) {
  return useMutation({
    mutationFn: (works: readonly number[]) =>
      works.length === 0 ? Promise.resolve("") : referencesTo(reviewId, works),
    onSuccess: done,
    onError: useSayFault(),
  });
}

/** Lets a custom entry cite more works. */
export function useCiteMore(reviewId: number) {
  const client = useQueryClient();
  const say = useSay();
  return useMutation({
    mutationFn: async ({ entryId, works }: { entryId: number; works: readonly number[] }) => {
      const path = { params: { path: { reviewId, entryId } } };
      const [{ fields }, more] = await Promise.all([
        read(api.GET("/api/reviews/{reviewId}/entries/{entryId}", path)),
        referencesTo(reviewId, works),
      ]);
      const references = [fields.references.trimEnd(), more].filter(Boolean).join("\n");
      return read(api.PUT("/api/reviews/{reviewId}/entries/{entryId}", { ...path, body: { ...fields, references } }));
    },
    onSuccess: (_, { works }) => {
      void client.invalidateQueries();
      say(`It cites ${worksSaid(works.length)} more.`);
    },
    onError: useSayFault(),
  });
}
