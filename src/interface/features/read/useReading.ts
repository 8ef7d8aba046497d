import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { api, read, type Dto } from "../../api/client";
import { useSayFault } from "../../ui/Toasts";

export type Reading = Dto<"TextToReadDto">;

const key = (reviewId: number) => ["review", reviewId, "reading"];

/** The texts in hand, in the order in which the person reads on. */
export const useReading = (reviewId: number) =>
  useQuery({
    queryKey: key(reviewId),
    queryFn: () => read(api.GET("/api/reviews/{reviewId}/reading", { params: { path: { reviewId } } })),
  });

const note = (reviewId: number, textId: number, isRead: boolean | null) =>
  read(
    api.PUT("/api/reviews/{reviewId}/texts/{textId}/reading", {
      params: { path: { reviewId, textId } },
      body: { isRead },
    }),
  );

/** Notes that a text was opened. That this fails keeps nobody from reading. */
export function useOpened(reviewId: number, textId: number) {
  const client = useQueryClient();
  useEffect(() => {
    note(reviewId, textId, null)
      .then(() => client.invalidateQueries({ queryKey: key(reviewId) }))
      .catch(() => undefined);
  }, [client, reviewId, textId]);
}

/** Says whether a text has been read. */
export function useSayRead(reviewId: number) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ textId, isRead }: { textId: number; isRead: boolean }) => note(reviewId, textId, isRead),
    onError: useSayFault(),
    onSettled: () => client.invalidateQueries({ queryKey: key(reviewId) }),
  });
}
