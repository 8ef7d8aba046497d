import type { HitField } from "../ui/HitStrip";
import { keepPreviousData, useMutation, useQueries, useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useState } from "react";
import { useNavigate, useSearchParams } from "react-router";
import { api, read, type Dto } from "../api/client";
import { useSayFault } from "../ui/Toasts";

export type SortOrder = NonNullable<Dto<"SortOrder">>;
export type Facet = NonNullable<Dto<"Facet">>;
export type StepAct = Dto<"StepAct">;
/** An act of one kind. */
export type ActOf<Kind extends StepAct["kind"]> = Extract<StepAct, { kind: Kind }>;
export type TrailWay = NonNullable<Dto<"TrailWay">>;

export const pageSize = 50;

/** Where a person is in a review's search: all of it stands in the address. */
export function usePlace(reviewId: number, fallbackStep: number | null) {
  const [params, setParams] = useSearchParams();
  const stepParam = params.get("step");
  const stepId = stepParam === null ? (fallbackStep ?? 0) : Number(stepParam) || 0;
  const sort = (params.get("sort") ?? "Relevance") as SortOrder;
  const hideJudged = params.get("judged") === "hide";
  const workId = Number(params.get("work") ?? 0) || null;
  const words = params.get("words");
  const change = useCallback(
    (next: Record<string, string | null>, replace = false) => {
      setParams(
        (old) => {
          const p = new URLSearchParams(old);
          for (const [name, value] of Object.entries(next)) {
            if (value === null) p.delete(name);
            else p.set(name, value);
          }
          return p;
        },
        { replace },
      );
    },
    [setParams],
  );
  return { reviewId, stepId, sort, hideJudged, workId, words, say: params.get("say"), change };
}

export type Place = ReturnType<typeof usePlace>;

const path = (reviewId: number, stepId: number) => ({ params: { path: { reviewId, stepId } } });

/** The steps around the one in view. */
export const usePath = (reviewId: number, stepId: number) =>
  useQuery({
    queryKey: ["review", reviewId, "path", stepId],
    queryFn: () => read(api.GET("/api/reviews/{reviewId}/steps/{stepId}/path", path(reviewId, stepId))),
    placeholderData: keepPreviousData,
  });

/** What stands over the list. */
export const useStepView = (reviewId: number, stepId: number) =>
  useQuery({
    queryKey: ["review", reviewId, "step", stepId],
    queryFn: () => read(api.GET("/api/reviews/{reviewId}/steps/{stepId}", path(reviewId, stepId))),
    placeholderData: keepPreviousData,
  });

/** The reading of a line, with counts; an older question is given up when a newer one comes. */
export const useReading = (reviewId: number, stepId: number, text: string, enabled = true) =>
  useQuery({
    queryKey: ["review", reviewId, "reading", stepId, text],
    queryFn: ({ signal }) =>
      read(
        api.POST("/api/reviews/{reviewId}/reading", { params: { path: { reviewId } }, body: { text, stepId }, signal }),
      ),
    placeholderData: keepPreviousData,
    enabled: enabled && text.trim().length > 0,
  });

/** Which list of a step: its order and, in a trail, its side. */
export interface ListOf {
  sort: SortOrder;
  side: TrailWay | null;
}

/** Pages of the list, by their number; only those asked for are fetched. */
export function useWorkPages(place: Place, list: ListOf, pages: number[]) {
  const { reviewId, stepId, hideJudged } = place;
  const { sort, side } = list;
  return useQueries({
    queries: pages.map((page) => ({
      queryKey: ["review", reviewId, "works", stepId, sort, side, hideJudged, page],
      queryFn: () =>
        read(
          api.GET("/api/reviews/{reviewId}/steps/{stepId}/works", {
            params: {
              path: { reviewId, stepId },
              query: { sort, hideJudged, offset: page * pageSize, limit: pageSize, ...(side ? { side } : {}) },
            },
          }),
        ),
      staleTime: 60_000,
    })),
  });
}

/** Counts of a field's values in the set in view, its own narrowing lifted. */
export const useFacet = (reviewId: number, stepId: number, facet: Facet, find: string, enabled: boolean) =>
  useQuery({
    queryKey: ["review", reviewId, "facet", stepId, facet, find],
    queryFn: () =>
      read(
        api.GET("/api/reviews/{reviewId}/steps/{stepId}/facets/{facet}", {
          params: { path: { reviewId, stepId, facet }, query: find ? { find } : {} },
        }),
      ),
    enabled,
    placeholderData: keepPreviousData,
  });

/** Takes a step and goes there. */
export function useTakeStep(place: Place) {
  const client = useQueryClient();
  const fault = useSayFault();
  return useMutation({
    mutationFn: ({ act, from }: { act: StepAct; from?: number }) =>
      read(
        api.POST("/api/reviews/{reviewId}/steps", {
          params: { path: { reviewId: place.reviewId } },
          body: { parentId: from ?? place.stepId, act },
        }),
      ),
    onSuccess: ({ stepId }) => {
      void client.invalidateQueries({ queryKey: ["review", place.reviewId, "path"] });
      place.change({ step: String(stepId), work: null, say: null });
    },
    onError: fault,
  });
}

/** Removes a step; what followed it is counted anew. */
export function useRemoveStep(place: Place) {
  const client = useQueryClient();
  const fault = useSayFault();
  return useMutation({
    mutationFn: (stepId: number) =>
      read(api.DELETE("/api/reviews/{reviewId}/steps/{stepId}", path(place.reviewId, stepId))),
    onSuccess: async ({ stepId }) => {
      place.change({ step: String(stepId), work: null });
      await client.invalidateQueries({ queryKey: ["review", place.reviewId] });
    },
    onError: fault,
  });
}

/** Gives a step a name. */
export function useRenameStep(reviewId: number) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ stepId, name }: { stepId: number; name: string }) =>
      read(api.PATCH("/api/reviews/{reviewId}/steps/{stepId}", { ...path(reviewId, stepId), body: { name } })),
    onSuccess: () =>
      Promise.all(
        ["path", "paths", "named"].map((what) => client.invalidateQueries({ queryKey: ["review", reviewId, what] })),
      ),
  });
}

/** First steps of the review's paths. */
export const usePaths = (reviewId: number, enabled: boolean) =>
  useQuery({
    queryKey: ["review", reviewId, "paths"],
    queryFn: () => read(api.GET("/api/reviews/{reviewId}/paths", { params: { path: { reviewId } } })),
    enabled,
  });

/** Remembers on the server where the person is, so that the next sitting begins there. */
export function useVisit(reviewId: number, stepId: number): void {
  useEffect(() => {
    if (stepId > 0)
      void api.POST("/api/reviews/{reviewId}/steps/{stepId}/visit", path(reviewId, stepId)).catch(() => undefined);
  }, [reviewId, stepId]);
}

/** Opens the kept works as a set like any other: a path of its own, as a list or as a map. */
export function useOpenKept(reviewId: number, as: "search" | "map" = "search"): () => void {
  const navigate = useNavigate();
  const fault = useSayFault();
  return () => {
    if (reviewId === 0) return;
    read(
      api.POST("/api/reviews/{reviewId}/steps", {
        params: { path: { reviewId } },
        body: { parentId: 0, act: { kind: "Search", expression: "stage:kept" } },
      }),
    ).then(({ stepId }) => void navigate(`/r/${reviewId}/${as}?step=${stepId}&sort=Newest`), fault);
  };
}

/** A value that follows another after a pause. */
export function useLate<T>(value: T, ms: number): T {
  const [late, setLate] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setLate(value), ms);
    return () => clearTimeout(timer);
  }, [value, ms]);
  return late;
}

/** A field of a work that the pane is to show. */
export interface ShownField {
  workId: number;
  field: HitField;
}
