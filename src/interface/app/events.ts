import { useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { useMatch } from "react-router";
import type { Dto } from "../api/client";

interface ZendleEvent {
  kind: "hello" | "job" | "corpus" | "review" | "databases" | "libraries" | "gather" | "members";
  reviewId: number | null;
  job: Dto<"JobDto"> | null;
}

/**
 * Hears what happens elsewhere, in another tab or in a job, and asks anew for what it touches: in the review that is
 * looked at, or in all of them where none is.
 */
export function useEvents(): void {
  const client = useQueryClient();
  const review = useMatch("/r/:reviewId/*")?.params.reviewId;
  useEffect(() => {
    // What happened in a review while another was looked at was not told.
    if (review) void client.invalidateQueries({ queryKey: ["review", Number(review)], refetchType: "none" });
    void client.invalidateQueries({ queryKey: ["reviews"], refetchType: review ? "none" : "active" });
    const source = new EventSource(review ? `/api/events?review=${review}` : "/api/events");
    let lost = false;
    source.onmessage = (message: MessageEvent<string>) => {
      const event = JSON.parse(message.data) as ZendleEvent;
      if (event.kind === "review" && event.reviewId !== null) {
        void client.invalidateQueries({ queryKey: ["review", event.reviewId] });
        void client.invalidateQueries({ queryKey: ["reviews"] });
      } else if (event.kind === "corpus") {
        void client.invalidateQueries({
          predicate: (q) => q.queryKey[0] === "review" || q.queryKey[0] === "databases" || q.queryKey[0] === "me",
        });
      } else if (event.kind === "members") {
        // Who belongs to what, or who is signed in, may have changed.
        void client.invalidateQueries({
          predicate: (q) => q.queryKey[0] === "me" || q.queryKey[0] === "reviews" || q.queryKey[2] === "members",
        });
      } else if (event.kind === "gather" && event.reviewId !== null) {
        void client.invalidateQueries({ queryKey: ["review", event.reviewId, "gather"] });
        void client.invalidateQueries({ queryKey: ["review", event.reviewId, "head"] });
      } else if (event.kind === "job" && event.job?.kind === "gather") {
        // While it runs, only what is gathered changes; what it brought may be asked for by fields everywhere.
        const of = event.job.endedAt === null ? ["gather"] : [];
        void client.invalidateQueries({ queryKey: ["review", event.job.subject, ...of] });
      } else if (event.kind === "libraries" || (event.kind === "job" && event.job?.kind === "holdings")) {
        void client.invalidateQueries({ queryKey: ["libraries"] });
        // What they hold is said on rows, counted by fields and narrowed by.
        if (event.kind === "libraries") void client.invalidateQueries({ queryKey: ["review"] });
      } else if (event.kind === "job" && event.job) {
        const job = event.job;
        client.setQueryData<Dto<"DatabasesDto">>(["databases"], (old) =>
          old ? { ...old, databases: old.databases.map((d) => (d.id === job.subject ? { ...d, job } : d)) } : old,
        );
        if (job.endedAt !== null || job.done === 0) void client.invalidateQueries({ queryKey: ["databases"] });
      } else if (event.kind === "hello" && lost) {
        // What happened while the line was down is not told again.
        lost = false;
        void client.invalidateQueries({ predicate: (q) => q.queryKey[0] !== "me" });
      } else if (event.kind === "hello") {
        // A job may have ended after its state was read and before the line was open.
        void client.invalidateQueries({
          predicate: (q) =>
            q.queryKey[0] === "databases" || q.queryKey[0] === "libraries" || q.queryKey[2] === "gather",
        });
      }
    };
    source.onerror = () => {
      lost = true;
      // The line is not opened again when the session has ended elsewhere.
      if (source.readyState === EventSource.CLOSED) void client.invalidateQueries({ queryKey: ["me"] });
    };
    return () => source.close();
  }, [client, review]);
}
