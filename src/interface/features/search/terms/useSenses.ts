import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { api, read, type Dto } from "../../../api/client";

export type Senses = Dto<"SensesDto">;

/** Sets of more works are parted only when one asks. */
const mostUnasked = 3000;

/** The senses of the set in view. */
export const useSenses = (reviewId: number, stepId: number, enabled: boolean) =>
  useQuery({
    queryKey: ["review", reviewId, "senses", stepId],
    queryFn: ({ signal }) =>
      read(
        api.GET("/api/reviews/{reviewId}/steps/{stepId}/senses", { params: { path: { reviewId, stepId } }, signal }),
      ),
    enabled,
    staleTime: 60_000,
  });

/** Whether a set is small enough to be looked at for senses without being asked. */
export const isPartedUnasked = (works: number) => works >= 20 && works <= mostUnasked;

/**
 * The groups that are worth a word unasked: those that make up more than a tenth of the set, when two of them have no
 * subject in common. Parts of one field are no senses.
 */
export function tellingGroups(senses: Senses): Senses["groups"] {
  const large = senses.groups.filter((g) => g.works.length * 10 > senses.total);
  const areFar = large.some((a) =>
    large.some(
      (b) => a.subjects.length > 0 && b.subjects.length > 0 && !a.subjects.some((s) => b.subjects.includes(s)),
    ),
  );
  return areFar ? large : [];
}

/** By work the term that names its group. */
export function useSenseOf(senses: Senses | undefined): ReadonlyMap<number, string> {
  return useMemo(
    () => new Map(senses?.groups.flatMap((g) => g.works.map((w) => [w, g.terms[0] ?? "unnamed"] as const)) ?? []),
    [senses],
  );
}
