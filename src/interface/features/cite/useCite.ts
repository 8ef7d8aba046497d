import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, read } from "../../api/client";

/** What is cited: works by their ids, or the whole set of a step. */
export type Cited = { works: readonly number[] } | { stepId: number };

const remembered = "zendle.cite";

interface Choice {
  style: string;
  locale: string;
}

/** The style and language last used here. */
export function useStyleChoice(): [Choice, (next: Partial<Choice>) => void] {
  const [choice, setChoice] = useState<Choice>(() => {
    try {
      return {
        style: "zendle",
        locale: "",
        ...(JSON.parse(localStorage.getItem(remembered) ?? "{}") as Partial<Choice>),
      };
    } catch {
      return { style: "zendle", locale: "" };
    }
  });
  return [
    choice,
    (next) =>
      setChoice((old) => {
        const now = { ...old, ...next };
        localStorage.setItem(remembered, JSON.stringify(now));
        return now;
      }),
  ];
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
export const useBibliography = (reviewId: number, cited: Cited, choice: Choice) =>
  useQuery({
    queryKey: ["review", reviewId, "cite", cited, choice],
    queryFn: () =>
      read(
        api.POST("/api/reviews/{reviewId}/cite", {
          params: { path: { reviewId } },
          body: {
            works: "works" in cited ? [...cited.works] : null,
            stepId: "stepId" in cited ? cited.stepId : null,
            style: choice.style,
            locale: choice.locale || null,
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
