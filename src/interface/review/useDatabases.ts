import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, read, type Dto } from "../api/client";
import { useSayFault } from "../ui/Toasts";

/** All databases with what their records show of them. */
export const useDatabases = () => useQuery({ queryKey: ["databases"], queryFn: () => read(api.GET("/api/databases")) });

/** Asks an address who it is, before anything is copied. */
export const useLook = () =>
  useMutation({ mutationFn: (body: Dto<"AddressRequest">) => read(api.POST("/api/databases/look", { body })) });

/** Asks a database again for its formats and their first records. */
export const useLookAgain = (id: number) =>
  useQuery({
    queryKey: ["databases", id, "look"],
    queryFn: () => read(api.GET("/api/databases/{id}/look", { params: { path: { id } } })),
    gcTime: 0,
    retry: false,
  });

/** Takes another format of a database; everything is harvested anew. */
export function useSetFormat() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ id, format }: { id: number; format: string }) =>
      read(api.PUT("/api/databases/{id}/format", { params: { path: { id } }, body: { format } })),
    onSuccess: () => client.invalidateQueries({ queryKey: ["databases"], exact: true }),
  });
}

/** Adds a database; its first harvest begins. */
export function useAddDatabase() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: Dto<"NewDatabaseRequest">) => read(api.POST("/api/databases", { body })),
    onSuccess: () => client.invalidateQueries({ queryKey: ["databases"] }),
  });
}

/** Fetches the controlled vocabulary of a database; null takes it away. */
export function useSetVocabulary() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ id, address }: { id: number; address: string | null }) =>
      read(api.PUT("/api/databases/{id}/vocabulary", { params: { path: { id } }, body: { address } })),
    onSuccess: () => client.invalidateQueries(),
  });
}

/** Says of which database another is an extract. */
export function useSetPart() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ id, partOf }: { id: number; partOf: number | null }) =>
      read(api.PUT("/api/databases/{id}/part-of", { params: { path: { id } }, body: { partOf } })),
    onSuccess: () => client.invalidateQueries(),
    onError: useSayFault(),
  });
}

/** Says how often a database is harvested by itself; null for by hand only. */
export function useSetSchedule() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ id, every }: { id: number; every: Dto<"DatabaseDto">["every"] }) =>
      read(api.PUT("/api/databases/{id}/schedule", { params: { path: { id } }, body: { every } })),
    onSuccess: () => client.invalidateQueries({ queryKey: ["databases"], exact: true }),
    onError: useSayFault(),
  });
}

/** Harvests, stops, or goes on. */
export function useHarvest() {
  const client = useQueryClient();
  const settle = { onSettled: () => client.invalidateQueries({ queryKey: ["databases"] }), onError: useSayFault() };
  return {
    begin: useMutation({
      mutationFn: ({ id, whole }: { id: number; whole: boolean }) =>
        read(api.POST("/api/databases/{id}/harvest", { params: { path: { id }, query: { whole } } })),
      ...settle,
    }),
    stop: useMutation({
      mutationFn: (id: number) => read(api.POST("/api/jobs/{id}/stop", { params: { path: { id } } })),
      ...settle,
    }),
    resume: useMutation({
      mutationFn: (id: number) => read(api.POST("/api/jobs/{id}/resume", { params: { path: { id } } })),
      ...settle,
    }),
  };
}
