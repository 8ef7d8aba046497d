import { useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import type { Dto } from "../api/client";

interface ZendleEvent {
  kind: "hello" | "job" | "corpus" | "review" | "databases" | "gather" | "members";
  reviewId: number | null;
  job: Dto<"JobDto"> | null;
}

/** Hears what happens elsewhere, in another tab or in a job, and asks anew for what it touches. */
export function useEvents(): void {
  const client = useQueryClient();
  useEffect(() => {
    const source = new EventSource("/api/events");
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
        void client.invalidateQueries({ queryKey: ["review", event.job.subject] });
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
      }
    };
    source.onerror = () => {
      lost = true;
      // The line is not opened again when the session has ended elsewhere.
      if (source.readyState === EventSource.CLOSED) void client.invalidateQueries({ queryKey: ["me"] });
    };
    return () => source.close();
  }, [client]);
}
