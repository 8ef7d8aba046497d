import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, read, type Dto } from "../../api/client";
import { useSay, useSayFault } from "../../ui/Toasts";

export type NamedMap = Dto<"NamedMapDto">;

const key = (reviewId: number) => ["review", reviewId, "maps"];

/** The maps of a review that bear a name, with what changed since each was saved. */
export const useNamedMaps = (reviewId: number) =>
  useQuery({
    queryKey: key(reviewId),
    queryFn: () => read(api.GET("/api/reviews/{reviewId}/maps", { params: { path: { reviewId } } })),
  });

/** Saves a map under a name: a new one, or over the one that is there. */
export function useSaveMap(reviewId: number, saved: (id: number) => void) {
  const client = useQueryClient();
  const say = useSay();
  return useMutation({
    mutationFn: ({ id, ...body }: Dto<"SaveMapRequest"> & { id: number | null }) =>
      read(
        id === null
          ? api.POST("/api/reviews/{reviewId}/maps", { params: { path: { reviewId } }, body })
          : api.PUT("/api/reviews/{reviewId}/maps/{mapId}", { params: { path: { reviewId, mapId: id } }, body }),
      ),
    onSuccess: async (id, { name }) => {
      await client.invalidateQueries({ queryKey: key(reviewId) });
      say(`Saved as “${name.trim()}”.`);
      saved(id);
    },
  });
}

/** Removes a named map; it can be taken back. */
export function useRemoveMap(reviewId: number) {
  const client = useQueryClient();
  const say = useSay();
  const remove = useMutation({
    mutationFn: ({ map, isRemoved }: { map: NamedMap; isRemoved: boolean }) =>
      read(
        api.PUT("/api/reviews/{reviewId}/maps/{mapId}/removed", {
          params: { path: { reviewId, mapId: map.id } },
          body: { isRemoved },
        }),
      ),
    onSuccess: (_, { map, isRemoved }) => {
      void client.invalidateQueries({ queryKey: key(reviewId) });
      if (isRemoved)
        say(`“${map.name}” is removed.`, { label: "Undo", run: () => remove.mutate({ map, isRemoved: false }) });
    },
    onError: useSayFault(),
  });
  return (map: NamedMap) => remove.mutate({ map, isRemoved: true });
}
