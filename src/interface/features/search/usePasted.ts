import { useMutation } from "@tanstack/react-query";
import { api, read, type Dto } from "../../api/client";
import { linesOf } from "./pasted";

export type Pasted = Dto<"PastedReferenceDto">;

/** Finds the works that pasted references mean. */
export const usePasted = (reviewId: number) =>
  useMutation({
    mutationFn: (text: string) =>
      read(
        api.POST("/api/reviews/{reviewId}/pasted", {
          params: { path: { reviewId } },
          body: { lines: linesOf(text) },
        }),
      ),
  });
