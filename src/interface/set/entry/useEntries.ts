import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, read, type Dto } from "../../api/client";
import { useSayFault } from "../../ui/Toasts";

export type EntryFields = Dto<"EntryFields">;

/** A form in which nothing is written yet. */
export const emptyEntry: EntryFields = {
  title: "",
  type: "",
  people: "",
  year: "",
  venue: "",
  volume: "",
  issue: "",
  pages: "",
  publisher: "",
  doi: "",
  isbn: "",
  address: "",
  language: "",
  keywords: "",
  abstract: "",
  references: "",
};

/** The fields that printed references fill, one form for each. */
export const useReadPrinted = () =>
  useMutation({ mutationFn: (texts: string[]) => read(api.POST("/api/entries/read", { body: { texts } })) });

/** The kinds of document an entry may be. */
export const useKinds = () =>
  useQuery({
    queryKey: ["entries", "kinds"],
    queryFn: () => read(api.GET("/api/entries/kinds")),
    staleTime: Infinity,
  });

/** An entry as it was typed. */
export const useEntry = (reviewId: number, entryId: number | null) =>
  useQuery({
    queryKey: ["review", reviewId, "entry", entryId],
    queryFn: () =>
      read(
        api.GET("/api/reviews/{reviewId}/entries/{entryId}", {
          params: { path: { reviewId, entryId: entryId ?? 0 } },
        }),
      ),
    enabled: entryId !== null,
  });

/**
 * Adds entries; a fault in a field is the form's to show. `done` is told even when what asked is gone by then: an empty
 * list that the entry is in now.
 */
export function useAddEntries(
  reviewId: number,
  done: (added: Dto<"EntryWorksDto">, entries: readonly EntryFields[]) => void,
) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (entries: EntryFields[]) =>
      read(api.POST("/api/reviews/{reviewId}/entries", { params: { path: { reviewId } }, body: { entries } })),
    onSuccess: (added, entries) => {
      void client.invalidateQueries();
      done(added, entries);
    },
  });
}

/** Puts other fields into an entry; `done` is told whatever has become of the form. */
export function useChangeEntry(reviewId: number, entryId: number, done: () => void) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (fields: EntryFields) =>
      read(
        api.PUT("/api/reviews/{reviewId}/entries/{entryId}", {
          params: { path: { reviewId, entryId } },
          body: fields,
        }),
      ),
    onSuccess: () => {
      void client.invalidateQueries();
      done();
    },
  });
}

/** Removes an entry, or brings it back; `done` is told whatever has become of the form. */
export function useRemoveEntry(reviewId: number, entryId: number, done: (isRemoved: boolean) => void) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (isRemoved: boolean) =>
      read(
        api.PUT("/api/reviews/{reviewId}/entries/{entryId}/removed", {
          params: { path: { reviewId, entryId } },
          body: { isRemoved },
        }),
      ),
    onSuccess: (_, isRemoved) => {
      void client.invalidateQueries();
      done(isRemoved);
    },
    onError: useSayFault(),
  });
}
