import { useQuery } from "@tanstack/react-query";
import { api, read, type Dto } from "../../api/client";
import { useLibraries } from "./useLibraries";

type Held = Dto<"HeldDto">;

const most = 100;
const pause = 15;

/** Works that are asked about in one request, as rows come into sight together. */
class Together {
  private waiting: { id: number; done: (way: Held | null) => void; failed: (e: unknown) => void }[] = [];

  of(id: number): Promise<Held | null> {
    return new Promise((done, failed) => {
      this.waiting.push({ id, done, failed });
      if (this.waiting.length === 1) setTimeout(() => void this.ask(), pause);
    });
  }

  private async ask() {
    const all = this.waiting;
    this.waiting = [];
    for (let i = 0; i < all.length; i += most) {
      const some = all.slice(i, i + most);
      const query = { works: [...new Set(some.map((w) => w.id))].join(",") };
      try {
        const found = await read(api.GET("/api/held", { params: { query } }));
        const byWork = new Map(found.map((w) => [w.workId, w]));
        for (const w of some) w.done(byWork.get(w.id) ?? null);
      } catch (e) {
        for (const w of some) w.failed(e);
      }
    }
  }
}

const together = new Together();

/** What the libraries of whoever looks hold of a work; asked only where they use any. */
export function useHeld(reviewId: number, workId: number) {
  const hasLibraries = useLibraries().data?.libraries.some((l) => l.isMine) ?? false;
  return useQuery({
    queryKey: ["review", reviewId, "held", workId],
    queryFn: () => together.of(workId),
    enabled: hasLibraries,
    staleTime: 60_000,
  });
}
