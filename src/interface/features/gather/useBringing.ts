import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import type { Dto } from "../../api/client";
import { sendFile } from "../../set/work/useGather";

export type Brought = Dto<"BroughtDto">;

/** A file that a person brought, and what became of it. */
export interface BroughtFile {
  id: number;
  file: File;
  /** The work it was brought for; null where it is to be recognised. */
  workId: number | null;
  state: "waits" | "sent" | "done" | "refused";
  /** What the server said of it. */
  brought: Brought | null;
  /** Why it was refused. */
  fault: string | null;
}

export interface Bringing {
  files: readonly BroughtFile[];
  /** Brings files: for one work, or each to be recognised. */
  bring: (files: Iterable<File>, workId: number | null) => void;
  /** Says which work a file is of; it is sent again. */
  assign: (id: number, workId: number) => void;
  /** Forgets what is done with. */
  clear: () => void;
}

/** So many files are on their way at once. */
const atOnce = 2;

/** The files a person brings, one list of them, sent a few at a time, each with its own end. */
export function useBringing(reviewId: number): Bringing {
  const client = useQueryClient();
  const [files, setFiles] = useState<readonly BroughtFile[]>([]);
  const next = useRef(1);
  const change = useCallback(
    (id: number, to: Partial<BroughtFile>) => setFiles((all) => all.map((f) => (f.id === id ? { ...f, ...to } : f))),
    [],
  );
  useEffect(() => {
    const sent = files.filter((f) => f.state === "sent").length;
    for (const one of files.filter((f) => f.state === "waits").slice(0, Math.max(0, atOnce - sent))) {
      change(one.id, { state: "sent" });
      sendFile(reviewId, one.file, one.workId)
        .then((brought) => change(one.id, { state: "done", brought, fault: null }))
        .catch((e: unknown) =>
          change(one.id, { state: "refused", brought: null, fault: e instanceof Error ? e.message : String(e) }),
        )
        .finally(() => void client.invalidateQueries({ queryKey: ["review", reviewId] }));
    }
  }, [files, reviewId, change, client]);
  return {
    files,
    bring: (brought, workId) => {
      const added = [...brought].map((file) => ({
        id: next.current++,
        file,
        workId,
        state: "waits" as const,
        brought: null,
        fault: null,
      }));
      setFiles((all) => [...all, ...added]);
    },
    assign: (id, workId) => change(id, { workId, state: "waits", brought: null, fault: null }),
    clear: () => setFiles((all) => all.filter((f) => f.state === "waits" || f.state === "sent")),
  };
}
