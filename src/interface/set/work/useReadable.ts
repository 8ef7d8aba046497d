import { useQuery } from "@tanstack/react-query";
import { api, read } from "../../api/client";

/** A text that is no PDF, as it is shown. */
export const useReadable = (reviewId: number, textId: number) =>
  useQuery({
    queryKey: ["review", reviewId, "readable", textId],
    queryFn: () =>
      read(api.GET("/api/reviews/{reviewId}/texts/{textId}/readable", { params: { path: { reviewId, textId } } })),
    staleTime: Infinity,
  });
