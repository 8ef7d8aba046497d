import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, read, type Dto } from "../../api/client";
import { useSay, useSayFault } from "../../ui/Toasts";
import { works } from "../../ui/numbers";

const inReview = (reviewId: number) => ({ params: { path: { reviewId } } });
const ofText = (reviewId: number, textId: number) => ({ params: { path: { reviewId, textId } } });

/** The kept works by how their texts stand. */
export const useGather = (reviewId: number) =>
  useQuery({
    queryKey: ["review", reviewId, "gather"],
    queryFn: () => read(api.GET("/api/reviews/{reviewId}/gather", inReview(reviewId))),
    placeholderData: keepPreviousData,
  });

/** One document with its work. */
export const useText = (reviewId: number, textId: number | null) =>
  useQuery({
    queryKey: ["review", reviewId, "gather", "text", textId],
    queryFn: () => read(api.GET("/api/reviews/{reviewId}/texts/{textId}", ofText(reviewId, textId ?? 0))),
    enabled: textId !== null,
  });

/** Where a document's bytes lie. */
export const fileOf = (reviewId: number, textId: number) => `/api/reviews/${reviewId}/texts/${textId}/file`;

/** Asks for texts: of the works named, of all kept ones not yet sought (null), or again of those sought in vain. */
export function useSeek(reviewId: number) {
  const client = useQueryClient();
  const say = useSay();
  const fault = useSayFault();
  return useMutation({
    mutationFn: (body: Dto<"GatherRequest">) =>
      read(api.POST("/api/reviews/{reviewId}/gather", { ...inReview(reviewId), body })),
    onSuccess: ({ sought, job }) => {
      if (sought > 0) say(`Seeking the ${sought === 1 ? "text of one work" : `texts of ${works(sought)}`}.`);
      else if (!job) say("There is nothing to seek: these texts are in hand.");
    },
    onError: fault,
    onSettled: () => client.invalidateQueries({ queryKey: ["review", reviewId, "gather"] }),
  });
}

/** Stops gathering; what waits can be gone on with. */
export function useStopGather(reviewId: number) {
  const fault = useSayFault();
  return useMutation({
    mutationFn: () => read(api.POST("/api/reviews/{reviewId}/gather/stop", inReview(reviewId))),
    onError: fault,
  });
}

/** Says what a document is. */
export function useSettle(reviewId: number) {
  const client = useQueryClient();
  const say = useSay();
  const fault = useSayFault();
  return useMutation({
    mutationFn: ({ textId, answer }: { textId: number; answer: NonNullable<Dto<"SettleAnswer">> }) =>
      read(
        api.POST("/api/reviews/{reviewId}/texts/{textId}/settle", { ...ofText(reviewId, textId), body: { answer } }),
      ),
    onSuccess: (_, { answer }) =>
      say(
        answer === "Not"
          ? "Taken out: it is not the work."
          : answer === "This"
            ? "In hand."
            : "In hand, as another version.",
      ),
    onError: fault,
    onSettled: () => client.invalidateQueries({ queryKey: ["review", reviewId] }),
  });
}

/** Files that can be brought, for the dialogue that chooses them. */
export const taken = ".pdf,.html,.htm,.xhtml,.xml,.txt,.epub";

/** Sends a file: for one work, or to be recognised. */
export const sendFile = (reviewId: number, file: File, workId: number | null) =>
  read(
    api.POST("/api/reviews/{reviewId}/texts", {
      params: { path: { reviewId }, query: { name: file.name, ...(workId === null ? {} : { workId }) } },
      body: file as never,
      bodySerializer: (body: unknown) => body as BodyInit,
      headers: { "Content-Type": "application/octet-stream" },
    }),
  );

/** The document of a row that counts, or the one to look at. */
export const documentOf = (row: Dto<"GatherRowDto">): Dto<"TextDto"> | null =>
  row.state === "ToLookAt"
    ? (row.texts.find((t) => t.verdict === "Doubtful") ?? null)
    : (row.texts.find((t) => t.verdict !== "Doubtful") ?? null);
