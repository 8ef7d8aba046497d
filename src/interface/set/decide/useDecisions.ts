import { useMutation, useQueryClient, type QueryClient } from "@tanstack/react-query";
import { useCallback } from "react";
import { api, read, type Dto } from "../../api/client";
import { useSay, useSayFault } from "../../ui/Toasts";
import { works } from "../../ui/numbers";
import type { Place } from "../useSet";

type Act = Dto<"DecisionAct">;
type Page = Dto<"WorkPageDto">;

const done: Record<Act, (n: number, value?: string) => string> = {
  Keep: (n) => `Kept ${works(n)}.`,
  SetAside: (n, value) => `Set aside ${works(n)}: ${value ?? ""}.`,
  Clear: (n) => `Removed the decision on ${works(n)}.`,
  Tag: (n, value) => `Tagged ${works(n)} “${value ?? ""}”.`,
  Untag: (n, value) => `Removed the tag “${value ?? ""}” from ${works(n)}.`,
};

function after(row: Dto<"WorkRowDto">, act: Act, value: string | undefined): Dto<"WorkRowDto"> {
  switch (act) {
    case "Keep":
      return { ...row, stage: "Kept", reason: null };
    case "SetAside":
      return { ...row, stage: "SetAside", reason: value ?? "" };
    case "Clear":
      return { ...row, stage: "Found", reason: null };
    case "Tag":
      return { ...row, tags: row.tags.includes(value ?? "") ? row.tags : [...row.tags, value ?? ""] };
    case "Untag":
      return { ...row, tags: row.tags.filter((t) => t !== value) };
  }
}

/** Shows a decision on a work at once, before the server has answered; the answer brings the truth. */
function showAtOnce(client: QueryClient, reviewId: number, workId: number, act: Act, value: string | undefined): void {
  client.setQueriesData<Page>(
    { queryKey: ["review", reviewId, "works"] },
    (page) => page && { ...page, works: page.works.map((w) => (w.id === workId ? after(w, act, value) : w)) },
  );
}

/** Takes the person's last act back. */
export function useUndo(reviewId: number): () => void {
  const client = useQueryClient();
  const say = useSay();
  const fault = useSayFault();
  return useCallback(() => {
    read(api.POST("/api/reviews/{reviewId}/undo", { params: { path: { reviewId } }, body: { batch: null } })).then(
      (u) => {
        say(`Undone: ${done[u.act](u.changed, "…").replace(/[.:].*$/, "")}.`);
        return client.invalidateQueries({ queryKey: ["review", reviewId] });
      },
      fault,
    );
  }, [reviewId, client, say, fault]);
}

/** Ways to decide: on one work, or on the first of the list. */
export function useDecide(place: Place) {
  const client = useQueryClient();
  const say = useSay();
  const fault = useSayFault();
  const undo = useUndo(place.reviewId);
  const mutation = useMutation({
    mutationFn: (body: Dto<"DecisionRequest">) =>
      read(api.POST("/api/reviews/{reviewId}/decisions", { params: { path: { reviewId: place.reviewId } }, body })),
    onMutate: (body) =>
      body.works?.forEach((w) => showAtOnce(client, place.reviewId, w, body.act, body.value ?? undefined)),
    onSuccess: ({ changed }, body) =>
      say(
        changed === 0 ? "Nothing to change." : done[body.act](changed, body.value ?? undefined),
        changed === 0 ? undefined : { label: "Undo (U)", run: undo },
      ),
    onError: fault,
    onSettled: () => client.invalidateQueries({ queryKey: ["review", place.reviewId] }),
  });
  const many = (works: readonly number[], act: Act, value?: string) =>
    mutation.mutate({
      act,
      works: [...works],
      value: value ?? null,
      stepId: null,
      first: null,
      sort: null,
      hideJudged: null,
    });
  return {
    one: (workId: number, act: Act, value?: string) => many([workId], act, value),
    many,
    first: (act: Act, first: number | null, value?: string) =>
      mutation.mutate({
        act,
        works: null,
        stepId: place.stepId,
        first,
        sort: place.sort,
        hideJudged: place.hideJudged,
        value: value ?? null,
      }),
    isPending: mutation.isPending,
  };
}

export type Decide = ReturnType<typeof useDecide>;
