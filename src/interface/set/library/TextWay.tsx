import { useTextWay } from "./useTextWay";
import { heldWords, wayWord } from "./words";

/** How a text can be had, in the words of a row: what the records say, or what the person's library adds to that. */
export function TextWay({ reviewId, workId, said }: { reviewId: number; workId: number; said: string }) {
  const way = useTextWay(reviewId, workId).data;
  const word = wayWord(way);
  return <span title={(way && heldWords(way)) ?? undefined}>{word ?? said}</span>;
}

/** What the person's libraries hold of a work, in a sentence; nothing where they use none. */
export function HeldLine({ reviewId, workId }: { reviewId: number; workId: number }) {
  const way = useTextWay(reviewId, workId).data;
  const words = way && heldWords(way);
  return words ? <p data-held={way.verdict ?? ""}>{words}</p> : null;
}
