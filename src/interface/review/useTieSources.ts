import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, read } from "../api/client";
import { useSayFault } from "../ui/Toasts";

const key = ["databases", "ties"];

/** Where citations come from beside the databases; asked again while one is being put in. */
export const useTieSources = () =>
  useQuery({
    queryKey: key,
    queryFn: () => read(api.GET("/api/tie-sources")),
    refetchInterval: ({ state }) =>
      state.data?.some((s) => s.job?.state === "Running" || s.job?.state === "Waiting") ? 1000 : false,
  });

/** Adds the citations of a table. */
export function useAddTieTable() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ file, name }: { file: File; name: string }) =>
      read(
        api.POST("/api/tie-sources", {
          params: { query: { name } },
          headers: { "Content-Type": "text/csv" },
          body: file as never,
          bodySerializer: (body: unknown) => body as Blob,
        }),
      ),
    onSuccess: () => client.invalidateQueries({ queryKey: key }),
  });
}

/** Removes a table with all that it alone reports. */
export function useRemoveTieTable() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (id: number) => read(api.DELETE("/api/tie-sources/{id}", { params: { path: { id } } })),
    onSuccess: () => client.invalidateQueries(),
    onError: useSayFault(),
  });
}
