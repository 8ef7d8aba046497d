import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, read } from "../../api/client";
import type { Place } from "../useSet";

/** How files were last named in a review; null for as usual. */
export function useNameTemplate(reviewId: number): [string | null, (template: string | null) => void] {
  const place = `zendle.texts.${reviewId}`;
  const [template, set] = useState(() => localStorage.getItem(place));
  return [
    template,
    (next) => {
      if (next === null) localStorage.removeItem(place);
      else localStorage.setItem(place, next);
      set(next);
    },
  ];
}

const asked = (template: string | null): Record<string, string> => (template === null ? {} : { template });

/** What an archive of the texts of a set would hold, and how its files would be named. */
export const useTextArchive = ({ reviewId, stepId, sort }: Place, template: string | null) =>
  useQuery({
    queryKey: ["review", reviewId, "textArchive", stepId, sort, template],
    queryFn: ({ signal }) =>
      read(
        api.GET("/api/reviews/{reviewId}/export/texts", {
          params: { path: { reviewId }, query: { stepId, sort, ...asked(template) } },
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
  });

/** Where the archive is fetched. */
export const archiveAddress = ({ reviewId, stepId, sort }: Place, template: string | null): string =>
  `/api/reviews/${reviewId}/export/texts/zip?${new URLSearchParams({ stepId: String(stepId), sort, ...asked(template) }).toString()}`;
