import { useSearchParams } from "react-router";
import type { Dto } from "../../api/client";
import { StageMark } from "../../ui/StageMark";
import { count } from "../../ui/numbers";
import { Press } from "../../ui/Press";
import { TextButton } from "../../ui/TextButton";
import type { Ask } from "../useAsk";
import type { Place } from "../useSet";
import { useBook } from "../useWork";
import { Part } from "./Part";

/** The book that a work is or stands in: its chapters here, and what its table of contents names besides. */
export function Book({ place, work, ask }: { place: Place; work: Dto<"WorkDto">; ask: Ask }) {
  const isPart = work.type === "chapter";
  const book = useBook(place.reviewId, work.id, isPart || work.type === "book").data;
  const [, setParams] = useSearchParams();
  if (!book) return null;
  const open = (id: number) =>
    setParams((old) => {
      const next = new URLSearchParams(old);
      next.set("work", String(id));
      return next;
    });
  const others = book.chapters.filter((c) => c.workId !== work.id);
  if (others.length === 0 && book.others.length === 0 && (!isPart || book.workId === null)) return null;
  return (
    <Part title={isPart ? "In the same book" : "Its chapters"}>
      {isPart && (
        <p className="mb-1">
          {book.workId === null ? (
            <span className="font-serif">{book.title}</span>
          ) : (
            <TextButton className="text-left font-serif" onClick={() => open(book.workId ?? 0)}>
              {book.title}
            </TextButton>
          )}
          {book.people && <span className="text-quiet"> · {book.people}</span>}
        </p>
      )}
      <ol className="space-y-1.5">
        {others.map((c) => (
          <li key={c.workId}>
            <Press className="block w-full text-left hover:underline" onClick={() => open(c.workId)}>
              <span className="font-serif text-[13.5px] leading-[1.3]">{c.title}</span>
            </Press>
            <p className="flex items-center gap-1.5 text-[12px] text-quiet">
              {c.stage !== "Found" && <StageMark stage={c.stage} />}
              {[c.people, c.pages && `pp. ${c.pages}`, c.cited > 0 && `cited by ${count(c.cited)}`]
                .filter(Boolean)
                .join(" · ")}
            </p>
            {c.begins && <p className="line-clamp-2 text-[12.5px]">{c.begins}</p>}
          </li>
        ))}
      </ol>
      {book.total > book.chapters.length && (
        <p className="mt-1 text-[12.5px] text-quiet">
          The first {count(book.chapters.length)} of {count(book.total)}.
        </p>
      )}
      {book.others.length > 0 && (
        <p className="mt-1.5 text-[12.5px] text-quiet">
          Its table of contents also names: <span className="font-serif">{book.others.join("; ")}</span>.
        </p>
      )}
      {others.length > 0 && (
        <TextButton className="mt-1.5 text-[12.5px]" onClick={() => ask.anew({ expression: book.expression })}>
          Make {book.workId === null ? "these" : "the book and its"} {count(book.total)}{" "}
          {book.total === 1 ? "chapter" : "chapters"} the list
        </TextButton>
      )}
    </Part>
  );
}
