import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, read } from "../../api/client";

/** What is cited: works by their ids, or the whole set of a step. */
export type Cited = { works: readonly number[] } | { stepId: number };

const mostUsed = 4;

interface Style {
  key: string;
  title: string;
}

interface Choice {
  style: string;
  locale: string;
  /** Styles used in this review, the last one first. */
  used: readonly Style[];
}

const none: Choice = { style: "zendle", locale: "", used: [] };

/** The style and language last used in a review, and the styles used before. */
export function useStyleChoice(reviewId: number): {
  choice: Choice;
  use: (style: Style) => void;
  speak: (locale: string) => void;
} {
  const place = `zendle.cite.${reviewId}`;
  const [choice, setChoice] = useState<Choice>(() => {
    try {
      return { ...none, ...(JSON.parse(localStorage.getItem(place) ?? "{}") as Partial<Choice>) };
    } catch {
      return none;
    }
  });
  const change = (next: (old: Choice) => Choice) =>
    setChoice((old) => {
      const now = next(old);
      localStorage.setItem(place, JSON.stringify(now));
      return now;
    });
  return {
    choice,
    use: ({ key, title }) =>
      change((old) => ({
        ...old,
        style: key,
        used: [{ key, title }, ...old.used.filter((u) => u.key !== key)].slice(0, mostUsed),
      })),
    speak: (locale) => change((old) => ({ ...old, locale })),
  };
}

/** Styles by words of their titles. */
export const useStyles = (find: string) =>
  useQuery({
    queryKey: ["styles", find],
    queryFn: () => read(api.GET("/api/styles", { params: { query: find ? { find } : {} } })),
    staleTime: Infinity,
    placeholderData: keepPreviousData,
  });

/** Formatted references. */
export const useBibliography = (reviewId: number, cited: Cited, { style, locale }: Choice) =>
  useQuery({
    queryKey: ["review", reviewId, "cite", cited, style, locale],
    queryFn: () =>
      read(
        api.POST("/api/reviews/{reviewId}/cite", {
          params: { path: { reviewId } },
          body: {
            works: "works" in cited ? [...cited.works] : null,
            stepId: "stepId" in cited ? cited.stepId : null,
            style,
            locale: locale || null,
          },
        }),
      ),
    placeholderData: keepPreviousData,
    retry: false,
  });

/** Puts references on the clipboard, as rich and as plain text at once. */
export async function copyReferences(references: readonly { html: string; text: string }[]): Promise<void> {
  const html = references.map((r) => r.html).join("\n");
  const text = references.map((r) => r.text).join("\n\n");
  await navigator.clipboard.write([
    new ClipboardItem({
      "text/html": new Blob([html], { type: "text/html" }),
      "text/plain": new Blob([text], { type: "text/plain" }),
    }),
  ]);
}
