import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, read } from "../../api/client";
import { useSay, useSayFault } from "../../ui/Toasts";

/** The records of a work side by side. */
export const useRecords = (workId: number, enabled: boolean) =>
  useQuery({
    queryKey: ["review", "records", workId],
    queryFn: () => read(api.GET("/api/works/{workId}/records", { params: { path: { workId } } })),
    enabled,
  });

/** What a curator asks: to part records from a work, or to make one work of several. */
export type Ruling = { split: { workId: number; records: number[] } } | { join: number[] };

const ask = (ruling: Ruling, preview: boolean) =>
  "split" in ruling
    ? read(
        api.POST("/api/works/{workId}/split", {
          params: { path: { workId: ruling.split.workId } },
          body: { records: ruling.split.records, preview },
        }),
      )
    : read(api.POST("/api/works/join", { body: { works: ruling.join, preview } }));

/** What a ruling would make of the works; nothing is changed. */
export const useRulingPreview = (ruling: Ruling | null) =>
  useQuery({
    queryKey: ["review", "ruling", ruling],
    queryFn: () => (ruling ? ask(ruling, true) : null),
    enabled: ruling !== null,
    retry: false,
    gcTime: 0,
  });

/** Rules, says so, and offers to take it back. */
export function useRule(done: () => void) {
  const client = useQueryClient();
  const say = useSay();
  const fault = useSayFault();
  const anew = () => client.invalidateQueries({ queryKey: ["review"] });
  const undo = useMutation({
    mutationFn: (act: string) => read(api.POST("/api/rulings/{act}/undo", { params: { path: { act } } })),
    onSuccess: async () => {
      await anew();
      say("The records are unchanged.");
    },
    onError: fault,
  });
  return useMutation({
    mutationFn: (ruling: Ruling) => ask(ruling, false),
    onSuccess: async (ruled, ruling) => {
      await anew();
      const act = ruled.act;
      say(
        "split" in ruling ? "Split. Later harvests keep it so." : "Joined. Later harvests keep it so.",
        act ? { label: "Undo", run: () => undo.mutate(act) } : undefined,
      );
      done();
    },
    onError: fault,
  });
}
