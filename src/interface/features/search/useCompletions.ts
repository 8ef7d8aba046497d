import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, read, type Dto } from "../../api/client";
import { useLate } from "../../set/useSet";

export type Completion = Dto<"CompletionDto">;

/** The ways a line may go on from its caret; an older question is given up when a newer one comes. */
export function useCompletions(reviewId: number, stepId: number, text: string, caret: number | null) {
  const late = useLate(`${caret ?? ""} ${text}`, 120);
  const asked = caret !== null && late === `${caret} ${text}`;
  const found = useQuery({
    queryKey: ["review", reviewId, "complete", stepId, text, caret],
    queryFn: ({ signal }) =>
      read(
        api.POST("/api/reviews/{reviewId}/reading/complete", {
          params: { path: { reviewId } },
          body: { text, caret: caret ?? 0, stepId },
          signal,
        }),
      ),
    enabled: asked,
    staleTime: 60_000,
  });
  const list = asked ? (found.data ?? []) : [];
  // Which way is pointed at belongs to the line it was offered for.
  const [pointed, setPointed] = useState({ text: "", at: -1 });
  const at = pointed.text === text && pointed.at < list.length ? pointed.at : -1;
  return { list, at, point: (next: number) => setPointed({ text, at: next }) };
}
