import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, read } from "../../api/client";
import type { Place } from "../useSet";

/** How files are named unless somebody says otherwise. */
export const usualName = "{person} {year} {title} ({version})";

/** What a name can say. */
export const nameParts = ["person", "year", "title", "version", "venue", "key"] as const;

/** The names of files as they were last wanted in a review. */
export function useNameTemplate(reviewId: number): [string, (template: string) => void] {
  const place = `zendle.texts.${reviewId}`;
  const [template, set] = useState(() => localStorage.getItem(place) ?? usualName);
  return [
    template,
    (next) => {
      localStorage.setItem(place, next);
      set(next);
    },
  ];
}

/** What an archive of the texts of a set would hold, and how its files would be named. */
export const useTextBundle = ({ reviewId, stepId, sort }: Place, template: string) =>
  useQuery({
    queryKey: ["review", reviewId, "textBundle", stepId, sort, template],
    queryFn: ({ signal }) =>
      read(
        api.GET("/api/reviews/{reviewId}/export/texts", {
          params: { path: { reviewId }, query: { stepId, sort, template } },
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
  });

/** Where the archive is fetched. */
export const textArchive = ({ reviewId, stepId, sort }: Place, template: string): string =>
  `/api/reviews/${reviewId}/export/texts/zip?${new URLSearchParams({ stepId: String(stepId), sort, template }).toString()}`;
