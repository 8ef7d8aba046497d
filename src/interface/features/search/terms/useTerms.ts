import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, read, type Dto } from "../../../api/client";
import { withTerms } from "../board/useBoard";
import { useSayFault } from "../../../ui/Toasts";

export type TermSource = Dto<"TermSource">;
export type OfferedTerm = Dto<"OfferedTermDto">;
export type TermAgainst = Dto<"TermAgainstDto">;
export type RefusedTerm = Dto<"RefusedTermDto">;

/** A line at a step: what terms are offered for. */
export interface Line {
  reviewId: number;
  stepId: number;
  text: string;
}

const key = (line: Line, ...rest: unknown[]) => ["review", line.reviewId, "terms", line.stepId, line.text, ...rest];

/** Terms that mark the good works. */
export const useOfferedTerms = (line: Line, source: TermSource, works: readonly number[]) =>
  useQuery({
    queryKey: key(line, source, works),
    queryFn: ({ signal }) =>
      read(
        api.POST("/api/reviews/{reviewId}/terms", {
          params: { path: { reviewId: line.reviewId } },
          body: { text: line.text, stepId: line.stepId, source, works: [...works] },
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
  });

/** Terms that mark the works set aside. */
export const useTermsAgainst = (line: Line) =>
  useQuery({
    queryKey: key(line, "against"),
    queryFn: ({ signal }) =>
      read(
        api.POST("/api/reviews/{reviewId}/terms/against", {
          params: { path: { reviewId: line.reviewId } },
          body: { text: line.text, stepId: line.stepId },
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
  });

/** What a term alone would bring or remove. */
export const useTrial = (line: Line, expression: string, card: number) =>
  useQuery({
    queryKey: key(line, "trial", expression, card),
    queryFn: ({ signal }) =>
      read(
        api.POST("/api/reviews/{reviewId}/terms/trial", {
          params: { path: { reviewId: line.reviewId } },
          body: { text: line.text, stepId: line.stepId, expression, card },
          signal,
        }),
      ),
    enabled: expression.trim() !== "",
  });

/** Refuses a term, or lets it be offered again. */
export function useRefuse(reviewId: number) {
  const client = useQueryClient();
  const fault = useSayFault();
  return useMutation({
    mutationFn: (body: { text: string; isRefused: boolean }) =>
      read(api.PUT("/api/reviews/{reviewId}/terms/refused", { params: { path: { reviewId } }, body })),
    onSuccess: () => client.invalidateQueries({ queryKey: ["review", reviewId, "terms"] }),
    onError: fault,
  });
}

/** Adds terms to the board of a line, one after another, and tells the new line. */
export function useTakeTerms(line: Line, onLine: (text: string) => void) {
  const fault = useSayFault();
  return useMutation({
    mutationFn: async (taken: readonly { expression: string; card: number }[]) => {
      let text = line.text;
      for (const { expression, card } of taken) text = await withTerms(line.reviewId, text, card, expression);
      return text;
    },
    onSuccess: onLine,
    onError: fault,
  });
}
