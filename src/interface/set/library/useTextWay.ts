import { useQuery } from "@tanstack/react-query";
import { api, read, type Dto } from "../../api/client";
import { useLibraries } from "./useLibraries";

type Way = Dto<"TextWayDto">;

const most = 100;
const pause = 15;

/** Works that are asked about in one request, as rows come into sight together. */
class Together {
  private waiting: { id: number; done: (way: Way | null) => void; failed: (e: unknown) => void }[] = [];

  of(id: number): Promise<Way | null> {
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
        const ways = await read(api.GET("/api/text-ways", { params: { query } }));
        const byWork = new Map(ways.map((w) => [w.workId, w]));
        for (const w of some) w.done(byWork.get(w.id) ?? null);
      } catch (e) {
        for (const w of some) w.failed(e);
      }
    }
  }
}

const together = new Together();

/** How the text of a work can be had by whoever looks, with their libraries; asked only where they use any. */
export function useTextWay(reviewId: number, workId: number) {
  const hasLibraries = useLibraries().data?.libraries.some((l) => l.isMine) ?? false;
  return useQuery({
    queryKey: ["review", reviewId, "way", workId],
    queryFn: () => together.of(workId),
    enabled: hasLibraries,
    staleTime: 60_000,
  });
}
